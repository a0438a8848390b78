import type { DriftAllowance, KnownDeviation, PriorDeviation } from '../statistics/mean-difference.ts';
import type { SpreadPrior } from '../statistics/spread-prior.ts';
import { apartInOrder, driftAllowance, type Drift, type UsualDrift } from './drift.ts';
import type { RunCurve } from './run-curve.ts';

/** What is known of the dyno and the car beside the runs that are compared. */
export interface Surroundings {
  /** The spread that repeats usually have, as a share of power. */
  spread?: SpreadPrior | undefined;
  /** Spread from one mounting to the next, as a share of power, where the sides were mounted anew. */
  remount?: KnownDeviation | undefined;
  /** The drift that is reckoned with; none where left out. */
  drift?: UsualDrift | undefined;
  /** The range that counts as the whole one, rpm. */
  whole?: readonly [number, number];
  /** However small a figure, runs scatter by this much, in its unit; that of power where left out. */
  leastDeviation?: number | undefined;
  /** Probability of the intervals; 0.95 where left out. */
  level?: number | undefined;
}

// Chosen by bench/experiments.ts: coverage of the mean in each third of the range.
/** Spread of one speed beside that of the whole range's mean, as variance: shape scatters beside level. */
const shapeVariance = 0.5;
/** However little power, runs scatter by this much, kW; of N·m nobody asks less either. */
export const leastDeviationKw = 0.03;

/** Variance of a narrow range's mean ÷ that of the whole one's. @param widthShare its width, as a share of the whole */
export function narrowing(widthShare: number): number {
  return 1 + shapeVariance * (1 - Math.min(1, Math.max(0, widthShare)));
}

/** A spread that is known of the whole range's mean, for a figure at one speed, such as a peak. */
export function spreadAtOneSpeed(spread: SpreadPrior): SpreadPrior {
  return { ...spread, share: spread.share * Math.sqrt(narrowing(0)) };
}

/** What part of the whole range a range is. */
export function shareOfWhole({ whole }: Surroundings, fromRpm: number, toRpm: number): number {
  return whole ? (toRpm - fromRpm) / (whole[1] - whole[0]) : 1;
}

/**
 * A spread that is known as a share, at the size of a figure.
 * @param size of the figure, in its unit
 * @param widthShare of the range that it is a mean over
 * @param least scatter, in its unit
 */
export function priorAt(
  spread: SpreadPrior,
  size: number,
  widthShare: number,
  least = leastDeviationKw,
): PriorDeviation {
  const sized = (share: number) => Math.hypot(share * size * Math.sqrt(narrowing(widthShare)), least);
  return {
    standardDeviation: sized(spread.share),
    df: spread.df,
    from: spread.from,
    upper: spread.upperShare === undefined ? undefined : sized(spread.upperShare),
  };
}

/**
 * What the drift that is reckoned with may add to a difference of two sides; nothing across mountings.
 * @param seen what the runs tell of a drift of this figure
 */
export function allowanceFor(
  { drift, remount }: Surroundings,
  test: readonly RunCurve[],
  baseline: readonly RunCurve[],
  seen?: Drift,
): DriftAllowance | undefined {
  return drift && !remount ? driftAllowance(drift, apartInOrder(test, baseline), seen) : undefined;
}
