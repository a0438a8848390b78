import { mayClaim } from '../comparison/judging-rule.ts';
import type { UncoveredBand } from '../comparison/coverage.ts';
import { missedBands, type PairJudgement } from './pair-judgement.ts';
import { runsToShow, type PairRuns } from './runs-to-show.ts';

/** The next best run of a job: of which setup, how many, and why; no setup where enough was run. */
export interface NextRun {
  setupId: number | null;
  againstId: number | null;
  why:
    | 'repair'
    | 'first-run'
    | 'baseline'
    | 'plan'
    | 'return'
    | 'air'
    | 'band'
    | 'not-alike'
    | 'shows-more'
    | 'beyond-reach'
    | 'enough';
  runs: number;
  /** The runs whose air is missing. */
  labels?: readonly string[];
  /** The band that the runs do not cover. */
  band?: UncoveredBand;
  /** The run that has to be seen to before any other. */
  repair?: string;
  /** The change that the runs would show, as a share of power. */
  wantedShare?: number;
  /** How long the runs take at the pace of the job so far, s. */
  expectedS?: number;
}

/** A change that owners ask about where this one has not said: 1 % of power. */
const usualWantedShare = 0.01;
/**
 * The next best run for one pair: what is missing of its plan, or of what has
 * to be known of its runs; one over the band that matters; a return where
 * drift, or another day, stands in the way; more of the side that has fewer
 * until a change of the wanted size would show; or enough, which is beside a
 * claim or where the whole interval lies within what matters.
 *
 * @param wantedShare smallest change that matters, as a share of power
 */
export function nextRunOfPair(pair: PairJudgement, runs: PairRuns, wantedShare = usualWantedShare): NextRun {
  const { testId, againstId, judging, withheld, claim } = pair;
  const next = (setupId: number | null, why: NextRun['why'], count: number): NextRun => ({
    setupId,
    againstId: setupId === againstId ? testId : againstId,
    why,
    runs: count,
  });
  if (judging.kind === 'planned' && !mayClaim(judging)) {
    const { test, baseline } = judging.missing;
    return baseline > 0 ? next(againstId, 'plan', baseline) : next(testId, 'plan', test);
  }
  const unlike = withheld.find((reason) => reason.id === 'not-alike');
  // What is only to be written down takes no run.
  const { labels } =
    withheld
      .flatMap((reason) => (reason.id === 'not-alike' ? reason.respect : []))
      .find(({ id }) => id === 'air-missing') ?? {};
  if (labels) return { ...next(testId, 'air', 0), labels };
  if (unlike) return next(unlike.respect.id === 'remount' ? againstId : testId, 'not-alike', 1);
  if (withheld.some(({ id }) => id === 'drift')) return next(againstId, 'return', 1);
  const [band] = missedBands(pair);
  if (band) return { ...next(band.side === 'baseline' ? againstId : testId, 'band', 1), band };
  if (claim === 'gain' || claim === 'loss') return next(null, 'enough', 0);
  const wantedKw = wantedShare * Math.abs(pair.difference.baseline);
  const { difference, halfWidth } = pair.difference;
  if (claim !== null && Math.abs(difference) + halfWidth <= wantedKw) return next(null, 'enough', 0);
  const more = runsToShow(wantedKw, pair, runs);
  if (!more) return { ...next(null, 'beyond-reach', 0), wantedShare };
  const [first, count] =
    more.test >= more.baseline ? ([testId, more.test] as const) : ([againstId, more.baseline] as const);
  return { ...next(first, 'shows-more', Math.max(1, count)), wantedShare };
}

/** What is asked of a job's runs, and how fast they come. */
export interface NextRunOptions {
  /** The latest run of the newest setup, where something was found on it that is a reason to stop. */
  repair?: { setupId: number; label: string } | undefined;
  /** A setup without a counted run. */
  unrun?: number | undefined;
  /** Runs that the baseline lacks before anything can be compared. */
  missing?: { setupId: number; runs: number } | undefined;
  wantedShare?: number | undefined;
  /** From one run to the next, s. */
  paceS?: number | undefined;
}

/** The next best run of a job: none before what is a reason to stop is seen to; else that of its newest pair that still wants one. @param pairs in the order of their setups */
export function nextRun(
  pairs: readonly { pair: PairJudgement; runs: PairRuns }[],
  { repair, unrun, missing, wantedShare, paceS }: NextRunOptions = {},
): NextRun {
  const timed = (next: NextRun): NextRun =>
    paceS !== undefined && next.runs > 0 ? { ...next, expectedS: next.runs * paceS } : next;
  if (repair) return { setupId: repair.setupId, againstId: null, why: 'repair', runs: 0, repair: repair.label };
  if (unrun !== undefined) return timed({ setupId: unrun, againstId: null, why: 'first-run', runs: 1 });
  for (const { pair, runs } of [...pairs].reverse()) {
    const next = nextRunOfPair(pair, runs, wantedShare);
    if (next.setupId !== null) return timed(next);
  }
  if (pairs.length === 0 && missing && missing.runs > 0) return timed({ ...missing, againstId: null, why: 'baseline' });
  return { setupId: null, againstId: null, why: 'enough', runs: 0 };
}
