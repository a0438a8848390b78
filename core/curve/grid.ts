import { seriesOf } from '../numerics/picked.ts';

/**
 * Engine speeds at whole multiples of a step inside a range, both ends included.
 *
 * @param stepRpm greater than 0
 * @returns rpm, rising; empty when no multiple lies inside
 */
export function gridBetween(fromRpm: number, toRpm: number, stepRpm: number): Float64Array {
  const first = Math.ceil(fromRpm / stepRpm - 1e-9);
  const last = Math.floor(toRpm / stepRpm + 1e-9);
  return seriesOf(last - first + 1, (index) => (first + index) * stepRpm);
}
