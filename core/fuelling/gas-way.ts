import { sampleAt } from '../numerics/sample-at.ts';
/** How late a probe's reading is: the way of the gas, longer where little flows, and the probe's own first-order lag; s. */
export interface ProbeDelay {
  /** At the log's median exhaust flow. */
  transportS: number;
  lagS: number;
}

/** Taken where nobody said another one and the data does not tell. Domain §12: a lag of about 0.1 s. */
export const usualDelay: ProbeDelay = { transportS: 0.15, lagS: 0.1 };

/** Transport at next to no flow, s: longer than this the reading is not used. */
const longestTransportS = 1.5;

/** Index (with a fraction) of the sample at which the gas read at each sample left the engine; NaN before the log. */
export function sourceOf(time: Float64Array, flow: Float64Array, transportS: number): Float64Array {
  const source = new Float64Array(time.length);
  let low = 0;
  for (let index = 0; index < time.length; index++) {
    const left = sampleAt(time, index) - Math.min(longestTransportS, transportS / sampleAt(flow, index));
    if (left < sampleAt(time, 0)) {
      source[index] = NaN;
      continue;
    }
    while (low > 0 && sampleAt(time, low) > left) low--;
    while (low + 1 < time.length && sampleAt(time, low + 1) <= left) low++;
    source[index] =
      low +
      (low + 1 < time.length ? (left - sampleAt(time, low)) / (sampleAt(time, low + 1) - sampleAt(time, low)) : 0);
  }
  return source;
}

/** A value between samples, by a straight line. */
export function between(values: Float64Array, place: number): number {
  const low = Math.floor(place);
  const share = place - low;
  return share === 0
    ? sampleAt(values, low)
    : sampleAt(values, low) + share * (sampleAt(values, low + 1) - sampleAt(values, low));
}
