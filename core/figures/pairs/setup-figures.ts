import { sampleAt } from '../../numerics/sample-at.ts';
import { peakOf } from '../../curve/peak.ts';
import { meanTravel, type Travel } from '../../curve/travel.ts';
import { standardDeviationOf, type KnownDeviation, type MeanDifference } from '../../statistics/mean-difference.ts';
import { halfWidthOfMean, spreadOfRepeats } from '../../statistics/mean-interval.ts';
import type { SpreadPrior } from '../../statistics/spread-prior.ts';
import { spreadAtOneSpeed } from '../../comparison/surroundings.ts';
import { commonSpeeds, meanCurve, type MeanCurve, type RunCurve } from '../../comparison/run-curve.ts';
import { jobClaims, type FamilyPair } from '../../judgement/job-claims.ts';
import type { SetupCurves } from './compared-pair.ts';
import { comparedPair, pairJudgement, type PairsOf } from './compared-pair.ts';
import { meanOf } from '../../numerics/mean.ts';

export interface SetupFigures {
  setupId: number;
  runs: number;
  /** Mean of the runs' own peaks, kW, and their standard deviation (NaN for one run). */
  peakKw: number;
  spreadKw: number;
  /** Half of the 95 % interval of the mean of peaks, kW, by their own spread and the usual one; absent without any. */
  halfWidthKw?: number;
  power: MeanCurve;
  torque: MeanCurve;
  /** Mean of the runs that logged it, kPa above the air; absent where none did. */
  boost?: MeanCurve;
  /** How its runs went through the engine's speeds, on average. */
  travel?: Travel;
  /** Against the baseline, and against the run setup that it was changed from; absent where nothing can be compared. */
  onBaseline?: FamilyPair;
  onParent?: FamilyPair;
  /** Gain in power at each of `gainRpm`, kW, for the strip. */
  gainRpm?: Float64Array;
  gainKw?: Float64Array;
}

/**
 * Each setup's means, and what may be said of it against the baseline and
 * against its parent, all pairs of the job together. Setups without a usable
 * run are left out.
 */
export function setupFigures(of: PairsOf): SetupFigures[] {
  const { setups, request } = of;
  const baseline = setups.find((setup) => setup.setupId === request.baselineId);
  const pairs = familyOf(of);
  const found = (testId: number, againstId: number | undefined) =>
    pairs.find((pair) => pair.testId === testId && pair.againstId === againstId);
  const peaksOf = setups.map(({ power }) => power.map((run) => peakOf(run.engineSpeedRpm, run.values).value));
  return setups.flatMap((setup, index) => {
    const peaks = peaksOf[index]!;
    const others = spreadOfRepeats(peaksOf.filter((theirs) => theirs !== peaks));
    const own = figuresOfSetup(setup, peaks, baseline && baseline !== setup ? baseline.power : [], of.spread, others);
    if (!own) return [];
    const [onBaseline, onParent] = [
      found(setup.setupId, request.baselineId),
      found(setup.setupId, ranBefore(setup, setups)),
    ];
    return [{ ...own, ...(onBaseline ? { onBaseline } : {}), ...(onParent ? { onParent } : {}) }];
  });
}

/** What a setup gave on the very one that it was changed from: what its prediction is scored by; undefined where a band that was meant is not covered. */
export function gainOnParent(
  { onParent }: Pick<SetupFigures, 'onParent'>,
  { parentId }: { parentId: number | null },
): MeanDifference | undefined {
  return onParent?.againstId === parentId && onParent?.uncovered.length === 0 ? onParent.difference : undefined;
}

/** The pairs of a job that are judged together: every setup against the baseline and its parent, each pair once. */
function familyOf(of: PairsOf): FamilyPair[] {
  const { setups, request } = of;
  const pairs = setups.flatMap((setup) => {
    const { setupId } = setup;
    const before = ranBefore(setup, setups);
    const others = new Set([request.baselineId, ...(before === undefined ? [] : [before])]);
    others.delete(setupId);
    return [...others].flatMap((againstId) => pairJudgement(of, comparedPair(of, setupId, againstId)) ?? []);
  });
  return jobClaims(pairs);
}

/** The nearest setup on the line that led to one which was run; undefined where none was. */
function ranBefore(setup: SetupCurves, setups: readonly SetupCurves[]): number | undefined {
  const seen = new Set([setup.setupId]);
  let before = setups.find(({ setupId }) => setupId === setup.parentId);
  while (before && before.power.length === 0 && !seen.has(before.setupId)) {
    seen.add(before.setupId);
    const { parentId } = before;
    before = setups.find(({ setupId }) => setupId === parentId);
  }
  return before && before.power.length > 0 ? before.setupId : undefined;
}

function figuresOfSetup(
  { setupId, power, torque, travel, boost = [] }: SetupCurves,
  peaks: readonly number[],
  baseline: readonly RunCurve[],
  spread: SpreadPrior,
  alike: KnownDeviation,
): SetupFigures | undefined {
  const speeds = commonSpeeds(power);
  if (!speeds) return undefined;
  const repeats = { runs: power.length, mean: meanOf(peaks), standardDeviation: standardDeviationOf(peaks) };
  const halfWidthKw = halfWidthOfMean(repeats, spreadAtOneSpeed(spread), alike);
  const boostSpeeds = commonSpeeds(boost);
  const figures: SetupFigures = {
    setupId,
    runs: power.length,
    peakKw: repeats.mean,
    spreadKw: repeats.standardDeviation,
    ...(halfWidthKw !== undefined && { halfWidthKw }),
    ...(boostSpeeds && { boost: meanCurve(boost, boostSpeeds) }),
    power: meanCurve(power, speeds),
    torque: meanCurve(torque, speeds),
    ...(travel ? { travel: meanTravel(travel, speeds) } : {}),
  };
  const shared = commonSpeeds([...power, ...baseline]);
  if (baseline.length === 0 || !shared) return figures;
  const base = meanCurve(baseline, shared).values;
  return {
    ...figures,
    gainRpm: shared,
    gainKw: meanCurve(power, shared).values.map((value, index) => value - sampleAt(base, index)),
  };
}
