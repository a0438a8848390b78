import type { Recording } from '../recording/recording.ts';
import { valuesOf } from '../recording/recording.ts';
import { blockAverage } from '../recording/block-average.ts';
import { Refusal } from '../refusal.ts';
import { rpmPerRadS } from '../units/units.ts';
import { slopes } from '../smoothing/moving-fit.ts';
import type { DynoProfile } from './dyno-profile.ts';

/**
 * What the reduction works on: the drum's motion on one time base, all arrays
 * of one length.
 */
export interface Drive {
  time: Float64Array;
  /** Drum or hub speed, rad/s. */
  speed: Float64Array;
  /** Absorber torque, N·m, when the machine has one. */
  absorber: Float64Array | undefined;
  /** Engine speed ÷ drum speed at each time. */
  ratio: Float64Array;
  /** Where the engine speed comes from. */
  engineSpeedFrom: 'pickup' | 'ratio';
  throttle: Float64Array | undefined;
}

/** Samples a second that the fits are made from; faster recordings are averaged down to it. */
export const workingRateHz = 200;

/** The slip of tyres and the rounding of a pickup are averaged over this time, s. */
const ratioSpanS = 0.8;

/**
 * Picks the channels that the reduction needs out of a recording.
 *
 * @param engineToDrumRatio engine speed ÷ drum speed, used where there is no pickup
 * @throws Refusal when there is no speed to work with
 */
export function driveOf(recording: Recording, dyno: DynoProfile, engineToDrumRatio?: number): Drive {
  const drum = drumSpeed(recording, dyno);
  const pickup = valuesOf(recording, 'engineSpeed');
  if (!pickup && engineToDrumRatio === undefined) {
    throw new Refusal(
      'The recording has no engineSpeed channel: give the ratio of engine speed to drum speed, or record a pickup.',
    );
  }
  const absorber = dyno.kind === 'inertia-roller' ? undefined : valuesOf(recording, 'absorberTorque');
  if (dyno.kind !== 'inertia-roller' && !absorber) {
    throw new Refusal(`A ${dyno.kind} recording needs an absorberTorque channel, and this one has none.`);
  }
  const throttle = valuesOf(recording, 'throttle');
  const taken = [drum, ...[pickup, absorber, throttle].filter((series) => series !== undefined)];
  const averaged = blockAverage(recording.time, taken, workingRateHz);
  const rest = averaged.series.slice(1);
  const speed = averaged.series[0]!;
  const pickupTaken = pickup && rest.shift();
  return {
    time: averaged.time,
    speed,
    ratio: pickupTaken
      ? smoothRatio(averaged.time, speed, pickupTaken)
      : new Float64Array(speed.length).fill(engineToDrumRatio!),
    engineSpeedFrom: pickupTaken ? 'pickup' : 'ratio',
    absorber: absorber && rest.shift(),
    throttle: throttle && rest.shift(),
  };
}

function drumSpeed(recording: Recording, dyno: DynoProfile): Float64Array {
  const turning = valuesOf(recording, 'rollerSpeed') ?? valuesOf(recording, 'hubSpeed');
  if (turning) return turning;
  const surface = valuesOf(recording, 'surfaceSpeed');
  if (!surface)
    throw new Refusal(
      'The recording has no rollerSpeed, hubSpeed or surfaceSpeed channel: no power can be made from it.',
    );
  if (!dyno.radiusM) throw new Refusal('A surfaceSpeed channel needs the drum radius (radiusM) in the dyno profile.');
  return surface.map((metresPerSecond) => metresPerSecond / dyno.radiusM!);
}

/** Pickup ÷ drum speed, smoothed: it varies slowly (creep), while a pickup rounds to several rpm. */
function smoothRatio(time: Float64Array, speed: Float64Array, pickup: Float64Array): Float64Array {
  const raw = speed.map((radS, index) => (radS > 1 ? pickup[index]! / rpmPerRadS / radS : NaN));
  return slopes(time, raw, ratioSpanS).value;
}
