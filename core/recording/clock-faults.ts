import { everyNth } from '../numerics/picked.ts';
import { medianOf } from '../numerics/quantile.ts';
import { firstNotBelow } from '../numerics/interpolation.ts';

/** A hole in a recording: nothing was sampled after `atS` for so long. */
export interface SampleGap {
  atS: number;
  lastsS: number;
}

/** A step of the instrument's clock after `atS`: by so many seconds more than had passed, or less. */
export interface ClockJump {
  atS: number;
  byS: number;
}

// Set by bench/accuracy.ts: the error against known truths, mean and worst.
/** A hole is longer than this, s, and than so many usual steps between samples. */
const leastGapS = 0.12;
const leastGapSteps = 6;
/** A clock's step is told from a change of speed only above this, s, and so many times the scatter of the speed. */
const leastJumpS = 0.08;
const scatterTimes = 8;
/** The drum's acceleration to each side is taken over this time, s, its speed over this; the former must be this large, rad/s². */
const sideS = 1;
const nearS = 0.2;
const leastAcceleration = 0.5;
/** The accelerations of both sides differ by no more than this factor. */
const leastAlike = 2;
/** A step of speed without a hole in time stands out from its neighbours by this factor. */
const standsOut = 5;

/**
 * Finds holes in a recording and steps of its clock. A drum with inertia
 * cannot jump: where its speed has changed by less than its acceleration and
 * the time that seems to have passed would make it, the clock stepped forward
 * while nothing was missed; where by more, it stepped back, or samples were
 * lost without a hole to show for them.
 *
 * @param time s, rising
 * @param speed drum speed, rad/s, of the same length
 */
export function clockFaults(time: Float64Array, speed: Float64Array): { gaps: SampleGap[]; jumps: ClockJump[] } {
  const count = time.length;
  const steps = new Float64Array(Math.max(0, count - 1));
  const changes = new Float64Array(steps.length);
  for (let index = 0; index < steps.length; index++) {
    steps[index] = time[index + 1]! - time[index]!;
    changes[index] = Math.abs(speed[index + 1]! - speed[index]!);
  }
  if (steps.length < 10) return { gaps: [], jumps: [] };
  const usualStep = usual(steps);
  // Half of all changes lie below 0.67 standard deviations, at steady speed and by noise alone.
  const scatter = usual(changes) / 0.6745;
  const gaps: SampleGap[] = [];
  const jumps: ClockJump[] = [];
  for (let index = 0; index < steps.length; index++) {
    const hole = steps[index]! > Math.max(leastGapS, leastGapSteps * usualStep);
    if (!hole && (changes[index]! < scatterTimes * scatter || !isolated(changes, index))) continue;
    const byS = jumpAt(time, speed, index, scatter);
    if (byS !== undefined) jumps.push({ atS: time[index]!, byS });
    else if (hole) gaps.push({ atS: time[index]!, lastsS: steps[index]! });
  }
  return { gaps, jumps };
}

/** Whether a change is far larger than those around it. */
function isolated(changes: Float64Array, index: number): boolean {
  for (let at = Math.max(0, index - 3); at <= Math.min(changes.length - 1, index + 3); at++) {
    if (at !== index && changes[at]! * standsOut > changes[index]!) return false;
  }
  return true;
}

/**
 * The times as they would stand had the clock not stepped; the array itself
 * where it did not. What lies on either side of a step is left as it is.
 */
export function withoutJumps(time: Float64Array, jumps: readonly ClockJump[]): Float64Array {
  if (jumps.length === 0) return time;
  return time.map((at) => jumps.reduce((sum, jump) => sum - (at > jump.atS ? jump.byS : 0), at));
}

/** How far the clock stepped between a sample and the next; undefined where time and speed agree, or speed tells nothing. */
function jumpAt(time: Float64Array, speed: Float64Array, index: number, scatter: number): number | undefined {
  const earlier = (spanS: number) => line(time, speed, firstNotBelow(time, time[index]! - spanS), index);
  const later = (spanS: number) => line(time, speed, index + 1, firstNotBelow(time, time[index + 1]! + spanS) - 1);
  const [before, after] = [earlier(sideS), later(sideS)];
  const [from, to] = [earlier(nearS) ?? before, later(nearS) ?? after];
  if (!before || !after || !from || !to) return undefined;
  const acceleration = (before.slope + after.slope) / 2;
  // Both sides must show the same steady pull; otherwise a real change of the drum's speed would pass for a fault of
  // the clock.
  const alike = before.slope * after.slope > 0 && ratio(before.slope, after.slope) < leastAlike;
  if (Math.abs(acceleration) < leastAcceleration || !alike) return undefined;
  const passed = (to.first - from.last) / acceleration;
  const hole = time[index + 1]! - time[index]!;
  if (passed < -0.2 * hole) return undefined;
  // Taking a step back never makes time stand still or go backwards.
  const byS = hole - Math.max(passed, 1e-4);
  const least = Math.max(leastJumpS, (scatterTimes * scatter) / Math.abs(acceleration) / 2);
  // Across a hole the acceleration itself may change: only a step that explains most of the hole is one.
  return Math.abs(byS) > Math.max(least, byS > 0 ? 0.6 * hole : 0.3 * hole) ? byS : undefined;
}

/** The median of about a thousand of the values, which is enough to know what is usual. */
function usual(values: Float64Array): number {
  const every = Math.max(1, Math.floor(values.length / 1000));
  return medianOf(everyNth(values, every));
}

function ratio(a: number, b: number): number {
  return Math.max(a / b, b / a);
}

/** A straight line through samples first…last: its slope, and its values at both ends. */
function line(time: Float64Array, speed: Float64Array, first: number, last: number) {
  const n = last - first + 1;
  if (n < 4) return undefined;
  let sx = 0,
    sy = 0,
    sxx = 0,
    sxy = 0;
  for (let index = first; index <= last; index++) {
    const x = time[index]! - time[first]!;
    sx += x;
    sy += speed[index]!;
    sxx += x * x;
    sxy += x * speed[index]!;
  }
  const slope = (n * sxy - sx * sy) / (n * sxx - sx * sx);
  const start = (sy - slope * sx) / n;
  return { slope, first: start, last: start + slope * (time[last]! - time[first]!) };
}
