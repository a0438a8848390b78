import { foundBeyond } from './detectable.ts';
import { movedProbability, movedT } from './moved-t.ts';
import { withLoneSides, type SpreadKnown } from './lone-side.ts';
import { varianceRatioProbability } from './student-t.ts';
import { meanOf, scatterOf } from '../numerics/mean.ts';
import type { SpreadPrior } from './spread-prior.ts';
import { together } from './variance-prior.ts';

/** Standard deviation of one sample (n − 1); NaN for fewer than two values. */
export function standardDeviationOf(values: readonly number[]): number {
  return values.length < 2 ? NaN : Math.sqrt(scatterOf(values) / (values.length - 1));
}

/** Standard deviation within several samples, pooled; its degrees of freedom are Σ(nᵢ − 1). */
export function pooledStandardDeviation(samples: readonly (readonly number[])[]): {
  standardDeviation: number;
  df: number;
} {
  const df = samples.reduce((sum, sample) => sum + Math.max(0, sample.length - 1), 0);
  if (df === 0) return { standardDeviation: NaN, df };
  const total = samples.reduce((sum, sample) => sum + (sample.length > 1 ? scatterOf(sample) : 0), 0);
  return { standardDeviation: Math.sqrt(total / df), df };
}

/** A spread known from elsewhere, and how well. */
export interface KnownDeviation {
  standardDeviation: number;
  df: number;
}

/** What is known of a spread beforehand, in the unit of the values. */
export interface PriorDeviation extends KnownDeviation {
  from: SpreadPrior['from'];
  /** Upper end of a default's range. */
  upper?: number | undefined;
}

export interface MeanDifference {
  test: number;
  baseline: number;
  /** Test less baseline; with a steady drift from run to run taken out where `withoutDrift`. */
  difference: number;
  /** The plain difference of the means. */
  asMeasured: number;
  withoutDrift: boolean;
  /** Half width of the interval of the difference; NaN when there is no spread to make it from. */
  halfWidth: number;
  /**
   * Probability of a difference as large when there is none, either way; NaN likewise. Where the spread
   * is a default's, the probability at the upper end of its range.
   */
  pValue: number;
  /** The same at the default itself: above it the difference would be one only if the default held. */
  plainPValue: number;
  /** Standard error of the difference. */
  standardError: number;
  /** Standard deviation of one run that the interval rests on; for `welch` that of both sides pooled, for orientation. */
  standardDeviation: number;
  /** Of the interval: a side of one run and a mounting anew make it less sure than the spread is. */
  df: number;
  spread: SpreadKnown;
  /**
   * Whose spread it is: the values' own, pooled or each side's; learned from earlier jobs and the values' own
   * together; or a default of the kind of dyno, for want of repeats.
   */
  from: 'pooled' | 'welch' | 'learned' | 'assumed' | 'none';
  /** True where a side has one value only and rests on the others' spread. */
  borrowsSpread: boolean;
  /** What an unseen drift adds to the difference at most, in standard errors: interval and probabilities hold with it. */
  moved: number;
  /** The least difference that counts as one: the half width. */
  leastSignificant: number;
  /** The true change that is found four times in five, at the level and with the allowances of the interval. */
  smallestDetectable: number;
}

/** What a drift from run to run may do to a difference, as the runs were made. */
export interface DriftAllowance {
  /** The most that it adds to the plain difference, in units of one run's spread. */
  most: number;
  /** The difference with a steady drift taken out; absent where the runs do not tell of one. */
  takenOut?: Estimate | undefined;
}

/** One way to make the difference. */
interface Estimate {
  /** In the unit of the values. */
  difference: number;
  /** Its variance ÷ that of the plain difference. */
  widening: number;
  /** What drift leaves in it at most, in units of one run's spread. */
  most: number;
}

export interface DifferenceOptions {
  /** Further samples of the same kind (other setups of the job), for a better estimate of spread. */
  alike?: readonly (readonly number[])[];
  /** The spread that repeats usually have, as it was known beforehand. */
  prior?: PriorDeviation | undefined;
  /** Spread from one mounting to the next, where the sides were mounted anew in between. */
  remount?: KnownDeviation | undefined;
  /** What a drift may add; nothing where left out. */
  drift?: DriftAllowance | undefined;
  /** Probability that the interval holds; 0.95 where left out. */
  level?: number;
}

// Set by bench/experiments.ts: coverage of the intervals, and claims where nothing changed.
/** Spreads as different as this happen by chance one time in twenty: beyond it each side keeps its own. */
const differsBelow = 0.05;
/** Fewer values tell too little of their own spread to stand by themselves. */
const leastForOwn = 4;
/** A learned spread that the values' own contradicts as plainly as this is not used. */
const contradictedBelow = 0.01;
/** With this many degrees of freedom of their own the values' spread is no default's any more. */
const leastOwnDf = 3;

// Set by bench/experiments.ts.
/** The difference without drift leads where its interval is so much narrower; else the plain one is easier to follow. */
export const narrowerBy = 0.85;

/**
 * Difference of two means with its interval.
 *
 * Spread is pooled over both samples and the alike ones, and with what was
 * known beforehand: s² = (ν₀·s₀² + Σ(nᵢ − 1)·sᵢ²)/(ν₀ + Σ(nᵢ − 1)), Student's t
 * with that many degrees of freedom (moderated t). Where both sides have four
 * values and their spreads differ by an F test at 5 %, each keeps its own
 * (Welch, degrees of freedom by Satterthwaite). A side of one run is less sure of its spread. A remount adds 2·s_mount². A
 * drift that nobody sees is a bias within a bound, and the interval holds
 * wherever it lies; where the runs tell enough of it, it is taken out instead.
 * Source: Smyth, Statistical Applications in Genetics and Molecular Biology 3 (2004) 3; Welch, Biometrika 34 (1947) 28;
 * Armstrong and Kolesár, Econometrica 86 (2018) 655.
 */
export function meanDifference(
  test: readonly number[],
  baseline: readonly number[],
  { alike = [], prior, remount, drift, level = 0.95 }: DifferenceOptions = {},
): MeanDifference {
  const means = { test: meanOf(test), baseline: meanOf(baseline) };
  const asMeasured = means.test - means.baseline;
  const variance = varianceOf(test, baseline, alike, prior);
  const known = variance.df > 0;
  const within = withLoneSides(variance, [test.length, baseline.length]);
  const added = remount ? 2 * remount.standardDeviation ** 2 : 0;
  const errorOf = (square: number) => ({
    standardError: Math.sqrt(square + added),
    df: remount && added > 0 && known ? satterthwaite([square, within], [added, remount.df]) : within,
  });
  const made = ({ difference, widening, most }: Estimate) => {
    const { standardError, df } = errorOf(variance.square * widening);
    const moved = most > 0 && standardError > 0 ? (most * variance.standardDeviation) / standardError : 0;
    const halfWidth = known ? movedT(level, df, moved) * standardError : NaN;
    return { difference, widening, standardError, df, moved, halfWidth };
  };
  const plain = made({ difference: asMeasured, widening: 1, most: drift?.most ?? 0 });
  const without = drift?.takenOut && made(drift.takenOut);
  const leads = without && without.halfWidth < narrowerBy * plain.halfWidth ? without : plain;
  const { difference, widening, standardError, df, moved, halfWidth } = leads;
  const probability = (error: number, freedom: number) =>
    error > 0 ? movedProbability(difference / error, freedom, moved) : Number(difference === 0);
  const plainPValue = known ? probability(standardError, df) : NaN;
  const upper = variance.upperSquare === undefined ? undefined : errorOf(variance.upperSquare * widening);
  return {
    ...means,
    difference,
    asMeasured,
    withoutDrift: leads !== plain,
    halfWidth,
    pValue: upper ? Math.max(plainPValue, probability(upper.standardError, upper.df)) : plainPValue,
    plainPValue,
    standardError: known ? standardError : NaN,
    standardDeviation: variance.standardDeviation,
    df,
    spread: { df: variance.df, told: variance.told },
    from: variance.from,
    borrowsSpread: known && Math.min(test.length, baseline.length) === 1,
    moved,
    leastSignificant: halfWidth,
    smallestDetectable: known ? halfWidth + foundBeyond(df) * standardError : NaN,
  };
}

interface Variance extends SpreadKnown {
  /** Of the difference of means. */
  square: number;
  standardDeviation: number;
  from: MeanDifference['from'];
  /** `square` at the upper end of a default's range. */
  upperSquare?: number;
}

function varianceOf(
  test: readonly number[],
  baseline: readonly number[],
  alike: readonly (readonly number[])[],
  prior: PriorDeviation | undefined,
): Variance {
  const perRun = 1 / test.length + 1 / baseline.length;
  if (spreadsDiffer(test, baseline)) {
    const sides = [test, baseline].map((side) => {
      const own = pooledStandardDeviation([side]);
      const { standardDeviation, df } = believed(own, prior) ? posterior(own, prior) : own;
      return { square: standardDeviation ** 2 / side.length, df };
    });
    const square = sides.reduce((sum, side) => sum + side.square, 0);
    const df = satterthwaite(...sides.map((side) => [side.square, side.df] as const));
    return { square, standardDeviation: Math.sqrt(square / perRun), df, told: df, from: 'welch' };
  }
  const sidesOnly = pooledStandardDeviation([test, baseline]);
  const others = pooledStandardDeviation(alike);
  // Setups whose spread is plainly another's tell nothing of this one's.
  const fits =
    sidesOnly.df === 0 ||
    others.df === 0 ||
    varianceRatioProbability(
      sidesOnly.standardDeviation ** 2 / others.standardDeviation ** 2,
      sidesOnly.df,
      others.df,
    ) > differsBelow;
  const own = fits ? pooledStandardDeviation([test, baseline, ...alike]) : sidesOnly;
  if (!believed(own, prior)) {
    const { standardDeviation, df } = own;
    const square = standardDeviation ** 2 * perRun;
    return { square, standardDeviation, df, told: df, from: df > 0 ? 'pooled' : 'none' };
  }
  const { standardDeviation, df } = posterior(own, prior);
  const square = standardDeviation ** 2 * perRun;
  const isAssumed = prior.from === 'assumed' && own.df < leastOwnDf;
  return {
    square,
    standardDeviation,
    df,
    told: own.df,
    from: isAssumed ? 'assumed' : prior.from === 'learned' ? 'learned' : 'pooled',
    ...(isAssumed && prior.upper !== undefined
      ? { upperSquare: posterior(own, { ...prior, standardDeviation: prior.upper }).standardDeviation ** 2 * perRun }
      : {}),
  };
}

/** What was known beforehand and what the values tell, together: s² = (ν₀·s₀² + ν·s²)/(ν₀ + ν). */
export function posterior(own: KnownDeviation, prior: KnownDeviation): KnownDeviation {
  // Values that tell nothing of their spread have none.
  const told = own.df > 0 ? [prior, own] : [prior];
  const { variance, df } = together(told.map((known) => ({ variance: known.standardDeviation ** 2, df: known.df })));
  return { standardDeviation: Math.sqrt(variance), df };
}

/** Whether there is something known beforehand that the values do not contradict. */
function believed(own: KnownDeviation, prior: PriorDeviation | undefined): prior is PriorDeviation {
  if (!prior || !(prior.df > 0)) return false;
  if (prior.from === 'assumed' || own.df < 2 || !(own.standardDeviation > 0)) return true;
  const ratio = own.standardDeviation ** 2 / prior.standardDeviation ** 2;
  return ratio < 1 || varianceRatioProbability(ratio, own.df, prior.df) > contradictedBelow;
}

/** Whether two samples' spreads differ by more than chance would make them one time in twenty. */
export function spreadsDiffer(test: readonly number[], baseline: readonly number[]): boolean {
  if (test.length < leastForOwn || baseline.length < leastForOwn) return false;
  const [a, b] = [standardDeviationOf(test) ** 2, standardDeviationOf(baseline) ** 2];
  if (!(a > 0) || !(b > 0)) return false;
  return varianceRatioProbability(a / b, test.length - 1, baseline.length - 1) < differsBelow;
}

/** Degrees of freedom of a sum of variances, each with its own. Source: Satterthwaite, Biometrics Bulletin 2 (1946) 110. */
export function satterthwaite(...parts: readonly (readonly [square: number, df: number])[]): number {
  const sum = parts.reduce((total, [square]) => total + square, 0);
  const below = parts.reduce((total, [square, df]) => total + (square > 0 ? square ** 2 / df : 0), 0);
  return below > 0 ? sum ** 2 / below : Infinity;
}
