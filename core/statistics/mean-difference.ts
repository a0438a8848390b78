import { studentT } from './student-t.ts';

export function meanOf(values: readonly number[]): number {
  return values.reduce((sum, value) => sum + value, 0) / values.length;
}

/** Sum of squared distances from the mean. */
function scatter(values: readonly number[]): number {
  const mean = meanOf(values);
  return values.reduce((sum, value) => sum + (value - mean) ** 2, 0);
}

/** Standard deviation of one sample (n − 1); NaN for fewer than two values. */
export function spreadOf(values: readonly number[]): number {
  return values.length < 2 ? NaN : Math.sqrt(scatter(values) / (values.length - 1));
}

/** Standard deviation within several samples, pooled; its degrees of freedom are Σ(nᵢ − 1). */
export function pooledSpread(samples: readonly (readonly number[])[]): { spread: number; df: number } {
  const df = samples.reduce((sum, sample) => sum + Math.max(0, sample.length - 1), 0);
  if (df === 0) return { spread: NaN, df };
  const total = samples.reduce((sum, sample) => sum + (sample.length > 1 ? scatter(sample) : 0), 0);
  return { spread: Math.sqrt(total / df), df };
}

export interface MeanDifference {
  test: number;
  baseline: number;
  /** Test less baseline. */
  difference: number;
  /** Half width of the 95 % interval of the difference; NaN when no side has a second value. */
  halfWidth: number;
  /** Within-sample standard deviation that the interval rests on. */
  spread: number;
  df: number;
}

/**
 * Difference of two means with its 95 % interval: Student's t over the
 * spread pooled within the samples. A side with one value borrows the spread
 * of the others.
 *
 * @param alike further samples of the same kind (other setups of the job), for a better estimate of spread
 */
export function meanDifference(
  test: readonly number[],
  baseline: readonly number[],
  alike: readonly (readonly number[])[] = [],
): MeanDifference {
  const { spread, df } = pooledSpread([test, baseline, ...alike]);
  const means = { test: meanOf(test), baseline: meanOf(baseline) };
  return {
    ...means,
    difference: means.test - means.baseline,
    halfWidth: df > 0 ? studentT(0.95, df) * spread * Math.sqrt(1 / test.length + 1 / baseline.length) : NaN,
    spread,
    df,
  };
}
