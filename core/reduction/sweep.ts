import { Refusal } from '../refusal.ts';
import { blockAverage } from '../recording/block-average.ts';
import { firstNotBelow, greatestAt } from '../numerics/interpolation.ts';
import { atLeastSamples, slopes } from '../smoothing/moving-fit.ts';
import { engineRpmOf, type Drive } from './drive.ts';
import { edgesIn, type Edge } from './edges.ts';
import { kinkTime } from './kink.ts';
import { lastingFall, type LastingFall } from './lasting-fall.ts';
import { shuffleEndS } from './shuffle.ts';
import { seriesOf } from '../numerics/picked.ts';
import { medianOf, quantileOf } from '../numerics/quantile.ts';

/** The part of a run from throttle open to lift, in s of the recording's clock. */
export interface SweepSpan {
  startS: number;
  endS: number;
  /** When the throttle was opened, fully; the tip-in lies between this and the start. */
  openedS: number;
  /** Jumps of torque inside it. */
  edges: readonly Edge[];
  /** Torque fell to a lower level and stayed there. */
  fall: LastingFall | undefined;
  /** False when the recording ends in the pull. */
  liftSeen: boolean;
}

// Set by bench/accuracy.ts: the error against known truths, mean and worst.
/** Acceleration is looked at over this time, s, and over this share of the rise: an absorber makes the drum wander … */
const accelerationSpanS = 0.7;
const accelerationSpanShare = 1 / 20;
/** … though never over more, s. */
const longestSpanS = 4;
/** Torque is looked at over this time, s. */
const torqueSpanS = 0.3;
/** Share of the run's usual acceleration, and of its usual torque, that counts as pulling. */
const pullingShare = 0.2;
const pullingTorqueShare = 0.3;
/** Shorter breaks in the pull (a rattle, a fuel cut) do not end it, s, if speed falls by no more than this share … */
const bridgedBreakS = 0.9;
const bridgedSpans = 1.3;
const bridgedFall = 0.04;
/** … and the ratio of engine to drum stays the same within this share: a change of gear does end it. */
const sameRatioShare = 0.04;
/** A pull must last this long, s, and raise the drum's speed by this share of its top. */
const leastDurationS = 1;
const leastRise = 0.12;
/** Kept clear of the lift itself: s, and samples where these are far apart. */
const liftMarginS = 0.06;
const liftMarginSamples = 1.5;
/** Share of full throttle that counts as open. */
const openThrottleShare = 0.9;

/**
 * Finds the sweep by the drum's acceleration and, where there is one, the
 * throttle: the pull with the greatest rise in speed, less the tip-in.
 *
 * @throws Refusal when there is no pull in the recording
 */
export function findSweep(drive: Drive): SweepSpan {
  const traces = [drive.speed, drive.impulse, drive.ratio, ...(drive.throttle ? [drive.throttle] : [])];
  const { time, series } = blockAverage(drive.time, traces, 50);
  const [speed, impulse, ratio, throttle] = series as [Float64Array, Float64Array, Float64Array, Float64Array?];
  const spanS = Math.min(longestSpanS, Math.max(accelerationSpanS, accelerationSpanShare * riseS(time, speed)));
  const acceleration = slopes(time, speed, spanS).slope;
  const torque = slopes(time, impulse, torqueSpanS).slope;
  const leastAcceleration = pullingShare * usualWhilePulling(acceleration, acceleration);
  const leastTorque = pullingTorqueShare * usualWhilePulling(acceleration, torque);
  const pulling = time.map((_, at) => Number(acceleration[at]! > leastAcceleration && torque[at]! > leastTorque));
  const breakS = Math.max(bridgedBreakS, bridgedSpans * spanS);
  const pulls = pullsIn({ time, speed, ratio, throttle }, pulling, breakS);
  const rise = ([first, last]: readonly [number, number]) => speed[last]! - speed[first]!;
  const best = pulls.reduce<readonly [number, number] | undefined>(
    (chosen, pull) => (chosen && rise(chosen) >= rise(pull) ? chosen : pull),
    undefined,
  );
  const top = speed.reduce((most, value) => (value > most ? value : most), 0);
  if (!best || time[best[1]]! - time[best[0]]! < leastDurationS || rise(best) < leastRise * top) {
    throw new Refusal(
      'No sweep was found in the recording: the drum never gains speed steadily for a second or more. Check that it holds a full-throttle pull.',
    );
  }
  // Acceleration over a long time turns before the drum does; torque tells to within a short one.
  const reachS = (spanS - accelerationSpanS) / 2;
  const [first, last] = [-1, 1].map((step, end) => {
    let at = best[end]!;
    const next = () => at + step;
    while (torque[next()]! > leastTorque && Math.abs(time[next()]! - time[best[end]!]!) <= reachS) at = next();
    return at;
  }) as [number, number];
  return refined(drive, time[first]!, time[last]!);
}

/** How long the drum takes through the middle of its rise, s: what counts as a steady gain of speed depends on it. */
function riseS(time: Float64Array, speed: Float64Array): number {
  const top = greatestAt(speed);
  const before = speed.subarray(0, top + 1);
  const least = before.reduce((low, value) => Math.min(low, value), Infinity);
  const level = (share: number) => least + share * (speed[top]! - least);
  const passed = before.findIndex((value) => value >= level(middleOfRise[1]));
  const begun = before.findLastIndex((value, index) => index <= passed && value <= level(middleOfRise[0]));
  return time[passed]! - time[Math.max(0, begun)]!;
}

/** Shares of the rise between which it is taken to be under way. */
const middleOfRise = [0.15, 0.85] as const;

/** A trace's median over the times of strong acceleration: over a quarter of the highest. */
function usualWhilePulling(acceleration: Float64Array, trace: Float64Array): number {
  const rising = seriesOf(acceleration.length, (index) => (acceleration[index]! > 0 ? acceleration[index]! : NaN));
  const high = quantileOf(rising, 0.98);
  if (Number.isNaN(high)) return Infinity;
  return medianOf(seriesOf(trace.length, (index) => (acceleration[index]! > 0.25 * high ? trace[index]! : NaN)));
}

/** Index pairs of the stretches in which the drum is pulled, short breaks bridged. */
function pullsIn(
  { time, speed, ratio, throttle }: Pick<Drive, 'time' | 'speed' | 'ratio' | 'throttle'>,
  pulling: Float64Array,
  breakS: number,
): [number, number][] {
  const fullThrottle = throttle ? throttle.reduce((most, value) => (value > most ? value : most), 0) : 0;
  const pulls: [number, number][] = [];
  for (let index = 0; index < time.length; index++) {
    const open = !throttle || fullThrottle < 20 || throttle[index]! >= openThrottleShare * fullThrottle;
    if (pulling[index] === 0 || !open) continue;
    const last = pulls.at(-1);
    const goesOn =
      last &&
      time[index]! - time[last[1]]! <= breakS &&
      speed[index]! >= (1 - bridgedFall) * speed[last[1]]! &&
      !(Math.abs(ratio[index]! / ratio[last[1]]! - 1) > sameRatioShare);
    if (goesOn) last[1] = index;
    else pulls.push([index, index]);
  }
  return pulls;
}

/** Sharpens the coarse ends to the kinks in the speed trace and leaves the tip-in out. */
function refined(drive: Drive, coarseStartS: number, coarseEndS: number): SweepSpan {
  // The impulse bends where torque changes, whatever the absorber does meanwhile.
  const { time, impulse } = drive;
  const lastS = time[time.length - 1]!;
  const opened = kinkTime(time, impulse, coarseStartS, 'rising') ?? coarseStartS;
  const lifted = coarseEndS > lastS - 0.1 ? undefined : kinkTime(time, impulse, coarseEndS, 'falling');
  const liftedS =
    lifted === undefined ? Math.min(coarseEndS, lastS) : lifted - atLeastSamples(time, liftMarginS, liftMarginSamples);
  const pulled = [firstNotBelow(time, opened + openingS), firstNotBelow(time, liftedS) - 1] as const;
  const fall = lastingFall(time, engineRpmOf(drive), impulse, ...pulled);
  // Jumps that belong to one lasting fall are told as that fall.
  const edges = edgesIn(time, impulse, ...pulled).filter(({ at }) => !(fall && inFall(fall, time[at]!)));
  const untilS = beforeLastJump(time, edges, beforeLimiter(time, impulse, edges, opened, liftedS));
  const fullyOpenS = afterFeathering(time, edges, opened, untilS);
  const startS = Math.min(shuffleEndS(time, impulse, fullyOpenS, untilS), untilS - leastDurationS / 2);
  const first = firstNotBelow(time, startS);
  return {
    openedS: fullyOpenS,
    startS: time[first]!,
    endS: Math.min(untilS, lastS),
    // A recording that goes on was not cut, whether the lift was found to the sample or not.
    liftSeen: lifted !== undefined || untilS < liftedS || coarseEndS < lastS - recordedOnS,
    edges: edges.filter(({ at }) => at > first && time[at]! < untilS),
    fall: fall && fall.fromS > startS && fall.toS < untilS ? fall : undefined,
  };
}

/** A recording that goes on for so long after the pull holds its end, s. */
const recordedOnS = 0.5;

/** Whether a jump belongs to a fall: a step is seen a little before and after it. */
const inFall = ({ fromS, toS }: LastingFall, atS: number) => atS > fromS - 0.1 && atS < toS + 0.1;

/** Torque that falls by this share of the pull's and does not come back, in the last part of it, is the rev limiter's doing. */
const limitedShare = 0.4;
const lastPart = 0.3;

/** The end of the pull, or the moment before its torque collapses for good. */
function beforeLimiter(
  time: Float64Array,
  impulse: Float64Array,
  edges: readonly Edge[],
  openedS: number,
  endS: number,
): number {
  const [first, last] = [firstNotBelow(time, openedS + openingS), firstNotBelow(time, endS) - 1];
  const middle = (impulse[last]! - impulse[first]!) / (time[last]! - time[first]!);
  for (const { at, jumpNm } of edges) {
    if (jumpNm > -limitedShare * middle || time[at]! < endS - lastPart * (endS - openedS)) continue;
    const before = (impulse[at]! - impulse[first]!) / (time[at]! - time[first]!);
    const after = (impulse[last]! - impulse[at]!) / (time[last]! - time[at]!);
    if (after < (1 - limitedShare) * before) return time[at]! - liftMarginS;
  }
  return endS;
}

/** So near to the end a jump of torque is the lift itself, s. */
const liftItselfS = 0.2;

/** Where the lift was found a little late, its jump of torque lies inside the sweep. */
function beforeLastJump(time: Float64Array, edges: readonly Edge[], endS: number): number {
  const last = edges.findLast(({ at }) => time[at]! < endS);
  return last && endS - time[last.at]! < liftItselfS ? time[last.at]! - liftMarginS : endS;
}

/** The driver may open the throttle halfway first, within so long and no later than the pull's first part, s and share. */
const featheredS = 3;
const featheredShare = 0.4;
/** The opening itself takes this long, s. */
const openingS = 0.25;

/** When the throttle was opened fully: a second jump of torque soon after the first, with no cut between, or the opening itself. */
function afterFeathering(time: Float64Array, edges: readonly Edge[], openedS: number, endS: number): number {
  const next = edges[0];
  if (!next || next.jumpNm < 0) return openedS;
  const atS = time[next.at]!;
  return atS - openedS <= Math.min(featheredS, featheredShare * (endS - openedS)) ? atS : openedS;
}
