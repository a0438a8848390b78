import { firstNotBelow } from '../recording/search.ts';
import { slopes } from '../smoothing/moving-fit.ts';

/** Acceleration over this time shows the driveline swing; over this one it has been averaged away, s. */
const shortS = 0.1;
const longS = 0.5;
/** The driveline winds up for this long at least, and is given up waiting for after this, s. */
const leastS = 0.3;
const mostS = 1.4;
/** A swing counts while it exceeds this many times what is usual later in the pull. */
const usualTimes = 4;

/**
 * When the shuffle of the driveline after tip-in has died away: the last time
 * at which acceleration over a tenth of a second strays from that over half a
 * second by more than it ever usually does once the pull has settled.
 *
 * @param time s, rising
 * @param speed drum speed, rad/s
 * @param openedS when the throttle opened, s
 * @param endS end of the pull, s
 * @returns s, 0.3 to 1.4 s after the opening, and never beyond the middle of the pull
 */
export function shuffleEndS(time: Float64Array, speed: Float64Array, openedS: number, endS: number): number {
  const first = firstNotBelow(time, openedS + leastS / 2);
  const last = firstNotBelow(time, endS) - 1;
  const inPull = time.subarray(first, last + 1);
  const short = slopes(inPull, speed.subarray(first, last + 1), shortS).slope;
  const long = slopes(inPull, speed.subarray(first, last + 1), longS).slope;
  const limitS = Math.min(openedS + mostS, (openedS + endS) / 2);
  const stray = inPull.map((_, index) => Math.abs(short[index]! - long[index]!));
  const settled = stray.filter((value, index) => inPull[index]! > limitS && !Number.isNaN(value)).sort();
  // Half of all strays lie below 0.67 standard deviations.
  const usual = settled.length > 0 ? settled[Math.floor(settled.length / 2)]! / 0.6745 : Infinity;
  let swungS = openedS + leastS;
  for (let index = 0; index < inPull.length && inPull[index]! <= limitS; index++) {
    if (stray[index]! > usualTimes * usual) swungS = Math.max(swungS, inPull[index]! + shortS / 2);
  }
  return Math.min(swungS, limitS);
}
