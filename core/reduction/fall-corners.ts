import { solveInPlace } from '../numerics/small-system.ts';
import { slopes } from '../smoothing/moving-fit.ts';
import { fallenAt, type FallShape } from './fall-shape.ts';

/** Engine speed is smoothed over this time, s. */
const speedSpanS = 0.12;
/** So much of the pull to each side is fitted, rpm. */
const sideRpm = 450;
/** The corners are sought in steps that halve from the first to the last, rpm … */
const firstStepRpm = 48;
const lastStepRpm = 3;
/** … no further than this from where they were seen, rpm. */
const reachRpm = 150;
/** A fall is no narrower than this, rpm: a step, as far as anybody can tell; its corners are rounded by no less. */
const narrowestRpm = 6;
const leastRoundedRpm = 1;
/** A pivot that is none. */
const singular = 1e-12;
const terms = 7;

/**
 * Where exactly a fall of torque begins and ends, and how soft its corners
 * are: the shape for which two parabolas with the fall between them, summed up
 * over time, leave the least squares of the impulse. Its noise is that of the
 * readings; torque's would be that of their differences.
 *
 * @param fall engine speeds near which it begins and ends, rpm
 */
export function fallCorners(
  time: Float64Array,
  rpm: Float64Array,
  impulse: Float64Array,
  [firstSample, lastSample]: readonly [number, number],
  [fromRpm, toRpm]: readonly [number, number],
): FallShape {
  const within = (series: Float64Array) => series.subarray(firstSample, lastSample + 1);
  const smooth = slopes(within(time), within(rpm), speedSpanS).value;
  const around = aroundFall(smooth, fromRpm, toRpm);
  const [t, x, p] = [within(time), smooth, within(impulse)].map((series) => series.subarray(...around)) as [
    Float64Array,
    Float64Array,
    Float64Array,
  ];
  let best: FallShape = { fromRpm, toRpm, roundedRpm: leastRoundedRpm };
  let least = fitted(t, x, p, best).left;
  for (let step = firstStepRpm; step >= lastStepRpm; step /= 2) {
    for (let better = true; better;) {
      better = false;
      for (const tried of neighbours(best, step)) {
        const { fromRpm: from, toRpm: to, roundedRpm } = tried;
        if (to - from < narrowestRpm || roundedRpm < leastRoundedRpm) continue;
        if (Math.abs(from - fromRpm) > reachRpm || Math.abs(to - toRpm) > reachRpm) continue;
        const { left } = fitted(t, x, p, tried);
        if (!(left < least)) continue;
        [best, least, better] = [tried, left, true];
      }
    }
  }
  return best;
}

/** The shapes a step away: either corner, both, both the other way, and the rounding. */
function neighbours({ fromRpm, toRpm, roundedRpm }: FallShape, step: number): FallShape[] {
  const moved = ([from, to, rounded]: readonly [number, number, number]) => ({
    fromRpm: fromRpm + from * step,
    toRpm: toRpm + to * step,
    // The rounding is known to a finer step: a quarter of it is a corner's width.
    roundedRpm: Math.max(leastRoundedRpm, roundedRpm + (rounded * step) / 4),
  });
  const corners: readonly (readonly [number, number])[] = [
    [1, 0],
    [0, 1],
    [1, 1],
    [1, -1],
  ];
  const ways = corners.flatMap(([from, to]) => [-1, 0, 1].map((rounded) => [from, to, rounded] as const));
  return [[0, 0, 1] as const, ...ways].flatMap((way) => [
    moved(way),
    moved(way.map((value) => -value) as [number, number, number]),
  ]);
}

/** First and last sample (not included) of the fall and what is fitted on both sides of it. */
function aroundFall(rpm: Float64Array, fromRpm: number, toRpm: number): [number, number] {
  const from = rpm.findIndex((value) => value >= fromRpm - sideRpm);
  const after = rpm.findIndex((value, index) => index > from && value > toRpm + sideRpm);
  return [Math.max(0, from), after < 0 ? rpm.length : after];
}

/**
 * What a fall takes: the impulse as it would have run on without it, and the torque it takes at an engine speed, N·m.
 * @param rpm engine speed at each time, smoothed
 * @param shape undefined where nothing falls
 */
export function withoutFall(
  time: Float64Array,
  rpm: Float64Array,
  impulse: Float64Array,
  shape: FallShape | undefined,
): { impulse: Float64Array; lostNm: (rpm: number) => number } {
  const nothing = { impulse, lostNm: () => 0 };
  if (!shape) return nothing;
  const around = aroundFall(rpm, shape.fromRpm, shape.toRpm);
  const of = (series: Float64Array) => series.subarray(...around);
  const { found } = fitted(of(time), of(rpm), of(impulse), shape);
  if (!found) return nothing;
  const lostNm = (at: number) => {
    const basis = torqueOf(at, shape);
    return -(found[3]! * basis[3] + found[4]! * basis[4] + found[5]! * basis[5]);
  };
  const whole = impulse.slice();
  let given = 0;
  let before = lostNm(rpm[0] ?? NaN);
  for (let index = 1; index < time.length; index++) {
    const now = lostNm(rpm[index]!);
    given += ((now + before) / 2) * (time[index]! - time[index - 1]!);
    whole[index]! += given;
    before = now;
  }
  return { impulse: whole, lostNm };
}

/** Torque's terms at an engine speed: a level, its slope and bend; the fall, and the changes of slope and bend that come with it. */
function torqueOf(rpm: number, shape: FallShape): readonly [number, number, number, number, number, number] {
  const past = (rpm - shape.fromRpm) / 1000;
  const fallen = fallenAt(rpm, shape);
  return [1, past, past ** 2, fallen, past * fallen, past ** 2 * fallen];
}

/** Torque as one parabola that falls to another, fitted as its sum over time: what is left of the squares, and its terms. */
function fitted(
  time: Float64Array,
  rpm: Float64Array,
  impulse: Float64Array,
  shape: FallShape,
): { left: number; found?: Float64Array } {
  const normal = new Float64Array(terms * terms);
  const right = new Float64Array(terms);
  let squares = 0;
  // The first is the impulse where the fit begins; the others are torque's, summed over time.
  const summed = new Float64Array(terms);
  summed[0] = 1;
  let before = torqueOf(rpm[0] ?? NaN, shape);
  for (let index = 0; index < time.length; index++) {
    const now = torqueOf(rpm[index]!, shape);
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
  if (!solveInPlace(normal, terms, terms, found, singular)) return { left: Infinity };
  return { left: squares - found.reduce((sum, value, index) => sum + value * right[index]!, 0), found: found.slice(1) };
}
