import { sampleAt } from '../numerics/sample-at.ts';
import { written } from '../sentence/sentence.ts';
import { testsSentence } from '../wording/kind-words.ts';
import { forecastOutcome, type Forecast } from '../forecasts/forecast.ts';
import { missedBands, type PairJudgement } from '../judgement/pair-judgement.ts';
import { notCoveredWords } from '../wording/coverage-words.ts';
import { toneOf } from '../wording/judgement-words.ts';
import type { JobFigures } from './job-figures.ts';

/**
 * What a job came to, small enough for a line of a list. It is read from the job's figures; nothing is decided here.
 */
export interface JobHeadline {
  /** Setup that the figures are of: what is delivered, or was tried last. */
  letter: string;
  /** Mean gain on what arrived over the first range, with half of its 95 % interval; null where nothing is compared. */
  gain: { kw: number; halfWidthKw: number | null; claim: 'gain' | 'loss' | null } | null;
  /** Why no gain is told over the band that matters, in words; null where one is, or nothing is compared. */
  notCovered: string | null;
  /** Gain over engine speed, kW, for a strip; empty without one. */
  strip: { rpm: number[]; kw: number[] };
  /** The last of its runs that broke a limit; null where none did. */
  broke: string | null;
  /** What came of forecasts, by their numbers: kW or N·m. */
  outcomes: Record<string, number>;
  /** What its other tests say, in words; null without any. */
  tests: string | null;
}

const stripPoints = 44;

/** @param figures of what is delivered against what arrived, as a report has them */
export function jobHeadline(
  figures: JobFigures,
  setups: readonly { id: number; letter: string }[],
  forecasts: readonly (Forecast & { id: number; setupId: number })[] = [],
): JobHeadline {
  const { sides, tests } = figures;
  const own = figures.setups.find(({ setupId }) => setupId === sides.testId);
  const pair = onArrived(figures);
  const [missed] = pair ? missedBands(pair) : [];
  const said = testsSentence((tests?.shown ?? []).flatMap(({ judgement }) => judgement ?? []));
  const broken = figures.runs.filter(({ setupId, broken: limits }) => setupId === sides.testId && limits.length > 0);
  return {
    letter: setups.find(({ id }) => id === sides.testId)?.letter ?? '',
    gain:
      pair && !missed
        ? {
            kw: pair.difference.difference,
            halfWidthKw: Number.isFinite(pair.difference.halfWidth) ? pair.difference.halfWidth : null,
            claim: toneOf(pair.claim) ?? null,
          }
        : null,
    notCovered: missed ? notCoveredWords(missed) : null,
    strip: thinned(own?.gainRpm, own?.gainKw),
    outcomes: Object.fromEntries(
      forecasts.flatMap((forecast) => {
        const of = figures.setups.find(({ setupId }) => setupId === forecast.setupId);
        const actual = of && forecastOutcome(forecast, of);
        return actual === undefined ? [] : [[String(forecast.id), actual] as const];
      }),
    ),
    broke: broken.at(-1)?.label ?? null,
    tests: said ? written(said) : null,
  };
}

/** The comparison, with what may be said of it among all pairs of the job where it is one of those. */
function onArrived({ comparison, sides, setups }: JobFigures): PairJudgement | undefined {
  const own = setups.find(({ setupId }) => setupId === sides.testId);
  const card = [own?.onBaseline, own?.onParent].find((pair) => pair?.againstId === sides.againstId);
  if (comparison && card) return { ...comparison.judgement, claim: card.jobClaim };
  return comparison?.judgement;
}

function thinned(rpm: Float64Array | undefined, kw: Float64Array | undefined): JobHeadline['strip'] {
  if (!rpm || !kw) return { rpm: [], kw: [] };
  const every = Math.max(1, Math.ceil(rpm.length / stripPoints));
  const kept = (values: Float64Array) =>
    Array.from(values.filter((_, index) => index % every === 0 && Number.isFinite(sampleAt(kw, index))));
  return { rpm: kept(rpm), kw: kept(kw) };
}
