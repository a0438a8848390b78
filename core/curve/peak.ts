import { sampleAt } from '../numerics/sample-at.ts';
import { greatestAt } from '../numerics/interpolation.ts';

export interface Peak {
  value: number;
  rpm: number;
  /** Set when the highest point is the first or last of the curve: the true peak may lie beyond. */
  atEdge: false | 'start' | 'end';
}

/**
 * The highest point of a curve on an even grid, sharpened between grid
 * points by the parabola through its neighbours.
 *
 * @param rpm rising, evenly spaced, at least one
 * @param values same length, any unit
 */
export function peakOf(rpm: Float64Array, values: Float64Array): Peak {
  const top = greatestAt(values);
  if (top === 0 || top === values.length - 1) {
    return { value: sampleAt(values, top), rpm: sampleAt(rpm, top), atEdge: top === 0 ? 'start' : 'end' };
  }
  const before = sampleAt(values, top - 1);
  const at = sampleAt(values, top);
  const after = sampleAt(values, top + 1);
  const bend = before - 2 * at + after;
  const shift = bend < 0 ? (0.5 * (before - after)) / bend : 0;
  return {
    value: at - 0.25 * (before - after) * shift,
    rpm: sampleAt(rpm, top) + shift * (sampleAt(rpm, top + 1) - sampleAt(rpm, top)),
    atEdge: false,
  };
}
