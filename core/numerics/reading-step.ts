import { sampleAt } from './sample-at.ts';

/** Gaps this small beside the largest value are rounding, and no step. */
const rounding = 1e-6;
/** The step is the gap that this share of them lies below: single odd values between the steps do not count. */
const low = 0.1;

/**
 * The step that readings are told in, such as 1 for whole km/h: what their
 * distinct values lie apart. Next to nothing for readings that are not stepped.
 * @param values in any order; NaN is left out
 */
export function readingStep(values: Float64Array): number {
  const sorted = values.filter((value) => !Number.isNaN(value)).sort();
  if (sorted.length < 2) return 0;
  const least = rounding * Math.max(Math.abs(sampleAt(sorted, 0)), Math.abs(sampleAt(sorted, sorted.length - 1)));
  const gaps = sorted
    .map((value, index) => (index === 0 ? 0 : value - sampleAt(sorted, index - 1)))
    .filter((gap) => gap > least)
    .sort();
  return gaps.length === 0 ? 0 : sampleAt(gaps, Math.floor(low * gaps.length));
}

/** What time usually lies between samples, s. */
export function usualInterval(time: Float64Array): number {
  const count = time.length;
  return count < 2 ? 0 : (sampleAt(time, count - 1) - sampleAt(time, 0)) / (count - 1);
}
