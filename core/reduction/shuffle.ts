import { firstNotBelow } from '../numerics/interpolation.ts';
import { localFit } from '../smoothing/local-polynomial.ts';

// Set by bench/accuracy.ts: the error against known truths, mean and worst.
/** A line over this time shows the driveline swing; in a cubic over this one it has been averaged away, s. */
const shortS = 0.1;
const longS = 0.6;
/** The driveline winds up for this long at least, and is given up waiting for after this, s. */
const leastS = 0.3;
const mostS = 1.4;
/** A swing counts while it exceeds this many times what is usual later in the pull. */
const usualTimes = 5;
/** … and this share of the pull's torque. */
const leastShare = 0.015;

/** How often it is looked at: while it may last, and later in the pull, s. */
const earlyStepS = 0.015;
const settledStepS = 0.15;
/** Within this time a swing comes back, s. */
const halfSwingS = 0.3;

/** How far torque strays at a moment, N·m. */
interface Swing {
  atS: number;
  size: number;
}

/**
 * When the shuffle of the driveline after tip-in has died away: the last time
 * at which torque over a tenth of a second strays from that over half a
 * second by more than it ever usually does once the pull has settled.
 *
 * @param time s, rising
 * @param impulse N·m·s; its slope is the torque
 * @param openedS when the throttle opened, s
 * @param endS end of the pull, s
 * @returns s, 0.3 to 1.4 s after the opening, and never beyond the middle of the pull
 */
export function shuffleEndS(time: Float64Array, impulse: Float64Array, openedS: number, endS: number): number {
  const first = firstNotBelow(time, openedS + leastS / 2);
  const last = firstNotBelow(time, endS) - 1;
  const limitS = Math.min(openedS + mostS, (openedS + endS) / 2);
  const torque = (impulse[last]! - impulse[first]!) / (time[last]! - time[first]!);
  const every = (stepS: number) => Math.max(1, Math.round((stepS * (last - first)) / (time[last]! - time[first]!)));
  const swings = (fromS: number, toS: number, step: number) => {
    const found: Swing[] = [];
    for (let at = firstNotBelow(time, fromS); at <= last && time[at]! <= toS; at += step) {
      const size = swingAt(time, impulse, first, last, time[at]!);
      if (!Number.isNaN(size)) found.push({ atS: time[at]!, size });
    }
    return found;
  };
  // What the rest of the pull shows is usual; some places of it are enough.
  const settled = swings(limitS, endS - longS / 2, every(settledStepS));
  const sorted = Float64Array.from(settled, ({ size }) => Math.abs(size)).sort();
  // Half of all swings lie below 0.67 standard deviations.
  const usual = sorted.length > 0 ? sorted[Math.floor(sorted.length / 2)]! / 0.6745 : Infinity;
  const counts = Math.max(usualTimes * usual, leastShare * Math.abs(torque));
  let swungS = openedS + leastS;
  const early = swings(openedS + leastS / 2, limitS, every(earlyStepS));
  for (const { atS, size } of early) {
    // A driveline swings to and fro; a steep curve strays one way.
    const back = ({ atS: otherS, size: other }: Swing) =>
      Math.abs(otherS - atS) < halfSwingS && other * size < 0 && Math.abs(other) > counts / 2;
    if (Math.abs(size) > counts && early.some(back)) swungS = Math.max(swungS, atS + shortS / 2);
  }
  return Math.min(swungS, limitS);
}

/** How far torque over a tenth of a second strays from a parabola through the time around it. */
function swingAt(time: Float64Array, impulse: Float64Array, first: number, last: number, atS: number): number {
  const around = (spanS: number) =>
    [
      Math.max(first, firstNotBelow(time, atS - spanS / 2)),
      Math.min(last, firstNotBelow(time, atS + spanS / 2) - 1),
    ] as const;
  const short = localFit(time, impulse, ...around(shortS), atS, 1);
  const long = localFit(time, impulse, ...around(longS), atS, 3);
  return short && long ? short.slope - long.slope : NaN;
}
