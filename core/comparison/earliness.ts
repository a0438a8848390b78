import { sampleAt } from '../numerics/sample-at.ts';
import { greatestAt, interpolate } from '../numerics/interpolation.ts';

/** How much earlier a curve reaches what the baseline makes at most. */
export interface Earliness {
  /** The baseline's peak, and its speed. */
  baselinePeak: number;
  baselineRpm: number;
  /** Where the test first reaches it, and until where it stays above; absent when it never does, or the peak is not in the range. */
  reachesRpm?: number;
  staysToRpm?: number;
}

/**
 * The speed at which the test first reaches the baseline's peak, and the range
 * over which it stays above it.
 * @param rpm rising; test and baseline of its length
 */
export function earlinessOf(rpm: Float64Array, test: Float64Array, baseline: Float64Array): Earliness {
  const top = greatestAt(baseline);
  const peak = sampleAt(baseline, top);
  const found: Earliness = { baselinePeak: peak, baselineRpm: sampleAt(rpm, top) };
  // The greatest value at an end of the range is no peak: it may lie beyond.
  if (top === 0 || top === baseline.length - 1) return found;
  const reachesRpm = firstReach(rpm, test, peak);
  if (reachesRpm === undefined) return found;
  let last = test.findIndex((value) => value >= peak);
  while (last + 1 < test.length && sampleAt(test, last + 1) >= peak) last++;
  return {
    ...found,
    reachesRpm,
    staysToRpm: last === test.length - 1 ? sampleAt(rpm, last) : crossing(rpm, test, last, peak),
  };
}

/** The speed at which a curve first reaches a value; undefined when it never does. */
export function firstReach(rpm: Float64Array, values: Float64Array, value: number): number | undefined {
  const first = values.findIndex((reached) => reached >= value);
  if (first < 0) return undefined;
  return first === 0 ? sampleAt(rpm, 0) : crossing(rpm, values, first - 1, value);
}

/** Where a curve passes a value between a point and the next, by a straight line. */
function crossing(rpm: Float64Array, values: Float64Array, index: number, value: number): number {
  const [a, b] = [sampleAt(values, index), sampleAt(values, index + 1)];
  const pair = Float64Array.of(Math.min(a, b), Math.max(a, b));
  const speeds =
    a < b
      ? Float64Array.of(sampleAt(rpm, index), sampleAt(rpm, index + 1))
      : Float64Array.of(sampleAt(rpm, index + 1), sampleAt(rpm, index));
  return interpolate(pair, speeds, value);
}
