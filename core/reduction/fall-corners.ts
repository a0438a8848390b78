import { solveInPlace } from '../numerics/small-system.ts';
import { slopes } from '../smoothing/moving-fit.ts';

/** Engine speed is smoothed over this time, s. */
const speedSpanS = 0.12;
/** So much of the pull to each side is fitted, rpm. */
const sideRpm = 450;
/** The corners are sought in steps that halve from the first to the last, rpm. */
const firstStepRpm = 48;
const lastStepRpm = 3;
/** A fall is no narrower than this, rpm: a step, as far as anybody can tell. */
const narrowestRpm = 6;
/** A pivot that is none. */
const singular = 1e-12;

/**
 * Where exactly a fall of torque begins and ends: the two engine speeds for
 * which two lines with a ramp between them, summed up over time, leave the
 * least squares of the impulse. Its noise is that of the readings; torque's
 * would be that of their differences.
 *
 * @param fall engine speeds near which it begins and ends, rpm
 * @returns both, rpm
 */
export function fallCorners(
  time: Float64Array,
  rpm: Float64Array,
  impulse: Float64Array,
  [firstSample, lastSample]: readonly [number, number],
  [fromRpm, toRpm]: readonly [number, number],
): [number, number] {
  const within = (series: Float64Array) => series.subarray(firstSample, lastSample + 1);
  const smooth = slopes(within(time), within(rpm), speedSpanS).value;
  const from = smooth.findIndex((value) => value >= fromRpm - sideRpm);
  const after = smooth.findIndex((value, index) => index > from && value > toRpm + sideRpm);
  const to = after < 0 ? smooth.length : after;
  const [t, x, p] = [within(time), smooth, within(impulse)].map((series) => series.subarray(Math.max(0, from), to)) as [
    Float64Array,
    Float64Array,
    Float64Array,
  ];
  let best: [number, number] = [fromRpm, toRpm];
  let least = leftBy(t, x, p, ...best);
  for (let step = firstStepRpm; step >= lastStepRpm; step /= 2) {
    for (let better = true; better;) {
      better = false;
      for (const [a, b] of [
        [step, 0],
        [-step, 0],
        [0, step],
        [0, -step],
        [step, step],
        [-step, -step],
      ] as const) {
        const tried: [number, number] = [best[0] + a, best[1] + b];
        if (
          tried[1] - tried[0] < narrowestRpm ||
          Math.abs(tried[0] - fromRpm) > 150 ||
          Math.abs(tried[1] - toRpm) > 150
        )
          continue;
        const left = leftBy(t, x, p, ...tried);
        if (!(left < least)) continue;
        [best, least, better] = [tried, left, true];
      }
    }
  }
  return best;
}

/** Squares left by torque as line, ramp and line, fitted as its sum over time. */
function leftBy(time: Float64Array, rpm: Float64Array, impulse: Float64Array, fromRpm: number, toRpm: number): number {
  const terms = 5;
  const normal = new Float64Array(terms * terms);
  const right = new Float64Array(terms);
  let squares = 0;
  const torque = (at: number): [number, number, number, number] => {
    const past = (rpm[at]! - fromRpm) / 1000;
    return [
      1,
      past,
      Math.min(1, Math.max(0, (rpm[at]! - fromRpm) / (toRpm - fromRpm))),
      Math.max(0, (rpm[at]! - toRpm) / 1000),
    ];
  };
  const summed = new Float64Array(terms);
  summed[0] = 1;
  let before = torque(0);
  for (let index = 0; index < time.length; index++) {
    const now = torque(index);
    if (index > 0) {
      const half = (time[index]! - time[index - 1]!) / 2;
      for (let term = 1; term < terms; term++) summed[term]! += half * (before[term - 1]! + now[term - 1]!);
    }
    before = now;
    const y = impulse[index]! - impulse[0]!;
    squares += y * y;
    for (let i = 0; i < terms; i++) {
      right[i]! += summed[i]! * y;
      for (let j = 0; j < terms; j++) normal[i * terms + j]! += summed[i]! * summed[j]!;
    }
  }
  const found = right.slice();
  if (!solveInPlace(normal, terms, terms, found, singular)) return Infinity;
  return squares - found.reduce((sum, value, index) => sum + value * right[index]!, 0);
}
