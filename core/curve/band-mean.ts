import { sampleAt } from '../numerics/sample-at.ts';
import { firstNotBelow, interpolate } from '../numerics/interpolation.ts';

/**
 * Mean of a curve over a band: its area by the trapezium rule divided by the
 * band's width, so that unevenly dense points do not count more.
 *
 * @param rpm rising
 * @param values same length
 * @returns NaN when the band is not wholly inside the curve
 */
export function bandMean(rpm: Float64Array, values: Float64Array, fromRpm: number, toRpm: number): number {
  if (!(toRpm > fromRpm) || fromRpm < sampleAt(rpm, 0) - 1e-6 || toRpm > sampleAt(rpm, rpm.length - 1) + 1e-6)
    return NaN;
  let area = 0;
  let x = fromRpm;
  let y = interpolate(rpm, values, fromRpm);
  for (let index = firstNotBelow(rpm, fromRpm); index < rpm.length && sampleAt(rpm, index) < toRpm; index++) {
    area += (sampleAt(rpm, index) - x) * (sampleAt(values, index) + y) * 0.5;
    x = sampleAt(rpm, index);
    y = sampleAt(values, index);
  }
  area += (toRpm - x) * (interpolate(rpm, values, toRpm) + y) * 0.5;
  return area / (toRpm - fromRpm);
}
