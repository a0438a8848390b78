import { Refusal } from '../refusal.ts';
import { blockAverage } from '../recording/block-average.ts';
import { firstNotBelow } from '../recording/search.ts';
import { slopes } from '../smoothing/moving-fit.ts';
import type { Drive } from './drive.ts';
import { kinkTime } from './kink.ts';
import { shuffleEndS } from './shuffle.ts';

/** The part of a run from throttle open to lift, in s of the recording's clock. */
export interface SweepSpan {
  startS: number;
  endS: number;
  /** False when the recording ends before the lift. */
  liftSeen: boolean;
}

/** Acceleration is looked at over this time, s. */
const accelerationSpanS = 0.3;
/** Share of the run's usual acceleration that counts as pulling. */
const pullingShare = 0.2;
/** Shorter breaks in the pull (a gear rattle, one cut) do not end it, s. */
const bridgedBreakS = 0.25;
/** A pull must last this long, s, and raise the drum's speed by this share of its top. */
const leastDurationS = 1;
const leastRise = 0.12;
/** Kept clear of the lift itself, s. */
const liftMarginS = 0.06;
/** Share of full throttle that counts as open. */
const openThrottleShare = 0.9;

/**
 * Finds the sweep by the drum's acceleration and, where there is one, the
 * throttle: the pull with the greatest rise in speed, less the tip-in.
 *
 * @throws Refusal when there is no pull in the recording
 */
export function findSweep(drive: Drive): SweepSpan {
  const coarse = blockAverage(drive.time, drive.throttle ? [drive.speed, drive.throttle] : [drive.speed], 50);
  const { time } = coarse;
  const acceleration = slopes(time, coarse.series[0]!, accelerationSpanS).slope;
  const usual = usualAcceleration(acceleration);
  const pulls = pullsIn(time, acceleration, coarse.series[1], pullingShare * usual);
  const speed = coarse.series[0]!;
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
  return refined(drive, time[best[0]]!, time[best[1]]!);
}

/** The acceleration typical of pulling: the median of what exceeds a quarter of the highest. */
function usualAcceleration(acceleration: Float64Array): number {
  const rising = acceleration.filter((value) => value > 0).sort();
  if (rising.length === 0) return Infinity;
  const high = rising[Math.floor(0.98 * (rising.length - 1))]!;
  const pulling = rising.filter((value) => value > 0.25 * high);
  return pulling[Math.floor(pulling.length / 2)]!;
}

/** Index pairs of the stretches in which the drum is pulled, short breaks bridged. */
function pullsIn(
  time: Float64Array,
  acceleration: Float64Array,
  throttle: Float64Array | undefined,
  threshold: number,
): [number, number][] {
  const fullThrottle = throttle ? throttle.reduce((most, value) => (value > most ? value : most), 0) : 0;
  const pulls: [number, number][] = [];
  for (let index = 0; index < time.length; index++) {
    const open = !throttle || fullThrottle < 20 || throttle[index]! >= openThrottleShare * fullThrottle;
    if (!(acceleration[index]! > threshold) || !open) continue;
    const last = pulls.at(-1);
    if (last && time[index]! - time[last[1]]! <= bridgedBreakS) last[1] = index;
    else pulls.push([index, index]);
  }
  return pulls;
}

/** Sharpens the coarse ends to the kinks in the speed trace and leaves the tip-in out. */
function refined(drive: Drive, coarseStartS: number, coarseEndS: number): SweepSpan {
  const { time, speed } = drive;
  const lastS = time[time.length - 1]!;
  const opened = kinkTime(time, speed, coarseStartS, 'rising') ?? coarseStartS;
  const lifted = coarseEndS > lastS - 0.1 ? undefined : kinkTime(time, speed, coarseEndS, 'falling');
  const endS = lifted === undefined ? Math.min(coarseEndS, lastS) : lifted - liftMarginS;
  const startS = Math.min(shuffleEndS(time, speed, opened, endS), endS - leastDurationS / 2);
  const first = firstNotBelow(time, startS);
  return { startS: time[first]!, endS: Math.min(endS, lastS), liftSeen: lifted !== undefined };
}
