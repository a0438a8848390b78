import { leastSignificantDifference, smallestDetectableChange } from './detectable.ts';
import { studentT, twoSidedProbability, varianceRatioProbability } from './student-t.ts';
import { meanOf, scatterOf } from '../numerics/mean.ts';

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

export interface MeanDifference {
  test: number;
  baseline: number;
  /** Test less baseline. */
  difference: number;
  /** Half width of the 95 % interval of the difference; NaN when there is no spread to make it from. */
  halfWidth: number;
  /** Probability of a difference as large when there is none, either way; NaN likewise. */
  pValue: number;
  /** Standard error of the difference. */
  standardError: number;
  /** Within-sample standard deviation that the interval rests on; for `welch` that of both sides pooled, for orientation. */
  standardDeviation: number;
  df: number;
  /** Whose spread it is: both sides' and the alike ones' pooled, each side's own, or one from elsewhere. */
  from: 'pooled' | 'welch' | 'borrowed' | 'none';
  /** True where a side has one value only and rests on the others' spread. */
  borrowsSpread: boolean;
  leastSignificant: number;
  smallestDetectable: number;
}

export interface DifferenceOptions {
  /** Further samples of the same kind (other setups of the job), for a better estimate of spread. */
  alike?: readonly (readonly number[])[];
  /** The dyno's own spread, used where no sample has a second value. */
  borrowed?: KnownDeviation | undefined;
  /** Spread from one mounting to the next, where the sides were mounted anew in between. */
  remount?: KnownDeviation | undefined;
}

// Set by bench/experiments.ts: coverage of the intervals, and claims where nothing changed.
/** Spreads as different as this happen by chance one time in ten: beyond it each side keeps its own. */
const differsBelow = 0.1;

/**
 * Difference of two means with its 95 % interval.
 *
 * Spread is pooled over both samples and the alike ones (Student); where the
 * two sides' spreads differ by an F test at 10 % each keeps its own (Welch,
 * degrees of freedom by Satterthwaite). Over 2 to 5 values a side and true
 * spreads up to three times apart this covers the truth 93.5 to 95.5 % of the
 * time; pooling always, 93 %. A side with one value borrows the others'
 * spread. A remount adds 2·s_mount² to the variance.
 * Source: Welch, Biometrika 34 (1947) 28.
 */
export function meanDifference(
  test: readonly number[],
  baseline: readonly number[],
  { alike = [], borrowed, remount }: DifferenceOptions = {},
): MeanDifference {
  const sides = pooledStandardDeviation([test, baseline]);
  const variance = varianceOf(test, baseline, alike, borrowed);
  const added = remount ? 2 * remount.standardDeviation ** 2 : 0;
  const standardError = Math.sqrt(variance.square + added);
  const df = remount && added > 0 ? satterthwaite([variance.square, variance.df], [added, remount.df]) : variance.df;
  const means = { test: meanOf(test), baseline: meanOf(baseline) };
  const difference = means.test - means.baseline;
  const standardDeviation = variance.from === 'welch' ? sides.standardDeviation : variance.standardDeviation;
  const known = df > 0;
  // In units of one run's spread, whatever the interval rests on.
  const scaled = standardError / Math.sqrt(1 / test.length + 1 / baseline.length);
  return {
    ...means,
    difference,
    halfWidth: known ? studentT(0.95, df) * standardError : NaN,
    pValue: known
      ? standardError > 0
        ? twoSidedProbability(difference / standardError, df)
        : Number(difference === 0)
      : NaN,
    standardError: known ? standardError : NaN,
    standardDeviation,
    df,
    from: variance.from,
    borrowsSpread: known && Math.min(test.length, baseline.length) === 1,
    leastSignificant: leastSignificantDifference(scaled, df, test.length, baseline.length),
    smallestDetectable: smallestDetectableChange(scaled, df, test.length, baseline.length),
  };
}

interface Variance {
  /** Of the difference of means. */
  square: number;
  standardDeviation: number;
  df: number;
  from: MeanDifference['from'];
}

function varianceOf(
  test: readonly number[],
  baseline: readonly number[],
  alike: readonly (readonly number[])[],
  borrowed: KnownDeviation | undefined,
): Variance {
  const perRun = 1 / test.length + 1 / baseline.length;
  if (spreadsDiffer(test, baseline)) {
    const [a, b] = [standardDeviationOf(test) ** 2 / test.length, standardDeviationOf(baseline) ** 2 / baseline.length];
    const df = satterthwaite([a, test.length - 1], [b, baseline.length - 1]);
    return { square: a + b, standardDeviation: Math.sqrt((a + b) / perRun), df, from: 'welch' };
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
    ) >
      differsBelow / 2;
  const { standardDeviation, df } = fits ? pooledStandardDeviation([test, baseline, ...alike]) : sidesOnly;
  if (df > 0) return { square: standardDeviation ** 2 * perRun, standardDeviation, df, from: 'pooled' };
  if (borrowed)
    return {
      square: borrowed.standardDeviation ** 2 * perRun,
      standardDeviation: borrowed.standardDeviation,
      df: borrowed.df,
      from: 'borrowed',
    };
  return { square: NaN, standardDeviation: NaN, df: 0, from: 'none' };
}

/** Whether two samples' spreads differ by more than chance would make them one time in ten. */
export function spreadsDiffer(test: readonly number[], baseline: readonly number[]): boolean {
  if (test.length < 2 || baseline.length < 2) return false;
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
