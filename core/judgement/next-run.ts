import { levelOf, mayClaim, type JudgingRule } from '../comparison/judging-rule.ts';
import type { PairJudgement } from './pair-judgement.ts';
import { smallestDetectableChange } from '../statistics/detectable.ts';

/** The next best run of a job: of which setup, how many, and why; no setup where enough was run. */
export interface NextRun {
  setupId: number | null;
  againstId: number | null;
  why: 'first-run' | 'baseline' | 'plan' | 'return' | 'not-alike' | 'shows-more' | 'beyond-reach' | 'enough';
  runs: number;
  /** The change that the runs would show, as a share of power. */
  wantedShare?: number;
  /** How long the runs take at the pace of the job so far, s. */
  expectedS?: number;
}

/** Runs of either side of a pair. */
export interface PairRuns {
  test: number;
  baseline: number;
}

/** A change that owners ask about where this one has not said: 1 % of power. */
const usualWantedShare = 0.01;
/** More runs than this are never proposed for one question. */
const mostRuns = 20;

/**
 * How many more runs, each of the side that has fewer, would show a change.
 * Every further look has its price where no plan was stated.
 * @returns undefined when no reasonable number would
 */
function runsToShow(
  wantedKw: number,
  pair: PairJudgement,
  runs: PairRuns,
): { test: number; baseline: number } | undefined {
  const { standardDeviation, df } = pair.difference;
  const more = { test: 0, baseline: 0 };
  for (let added = 0; added <= mostRuns; added++) {
    const [n, m] = [runs.test + more.test, runs.baseline + more.baseline];
    const then: JudgingRule =
      pair.judging.kind === 'every-look' ? { kind: 'every-look', look: pair.judging.look + added } : pair.judging;
    if (smallestDetectableChange(standardDeviation, df + added, n, m, { level: levelOf(then) }) <= wantedKw)
      return more;
    if (n <= m) more.test++;
    else more.baseline++;
  }
  return undefined;
}

/**
 * The next best run for one pair: what is missing of its plan; a return where
 * drift, or another day, stands in the way; more of the side that has fewer
 * until a change of the wanted size would show; or enough.
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
  if (unlike) return next(unlike.respect.id === 'remount' ? againstId : testId, 'not-alike', 1);
  if (withheld.some(({ id }) => id === 'drift')) return next(againstId, 'return', 1);
  if (claim === 'gain' || claim === 'loss') return next(null, 'enough', 0);
  const wantedKw = wantedShare * Math.abs(pair.difference.baseline);
  const more = runsToShow(wantedKw, pair, runs);
  if (!more) return { ...next(null, 'beyond-reach', 0), wantedShare };
  const [first, count] =
    more.test >= more.baseline ? ([testId, more.test] as const) : ([againstId, more.baseline] as const);
  return count === 0 ? next(null, 'enough', 0) : { ...next(first, 'shows-more', count), wantedShare };
}

/** What is asked of a job's runs, and how fast they come. */
export interface NextRunOptions {
  /** A setup without a counted run. */
  unrun?: number | undefined;
  /** Runs that the baseline lacks before anything can be compared. */
  missing?: { setupId: number; runs: number } | undefined;
  wantedShare?: number | undefined;
  /** From one run to the next, s. */
  paceS?: number | undefined;
}

/** The next best run of a job: that of its newest pair that still wants one. @param pairs in the order of their setups */
export function nextRun(
  pairs: readonly { pair: PairJudgement; runs: PairRuns }[],
  { unrun, missing, wantedShare, paceS }: NextRunOptions = {},
): NextRun {
  const timed = (next: NextRun): NextRun =>
    paceS !== undefined && next.runs > 0 ? { ...next, expectedS: next.runs * paceS } : next;
  if (unrun !== undefined) return timed({ setupId: unrun, againstId: null, why: 'first-run', runs: 1 });
  for (const { pair, runs } of [...pairs].reverse()) {
    const next = nextRunOfPair(pair, runs, wantedShare);
    if (next.setupId !== null) return timed(next);
  }
  if (pairs.length === 0 && missing && missing.runs > 0) return timed({ ...missing, againstId: null, why: 'baseline' });
  return { setupId: null, againstId: null, why: 'enough', runs: 0 };
}
