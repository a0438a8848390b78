import type { Recording } from '../recording/recording.ts';
import { valuesOf } from '../recording/recording.ts';
import { blockAverage } from '../recording/block-average.ts';
import { clockFaults, withoutJumps, type ClockJump, type SampleGap } from '../recording/clock-faults.ts';
import { Refusal } from '../refusal.ts';
import { rpmPerRadS } from '../units/units.ts';
import { seriesOf } from '../numerics/picked.ts';
import { slopes } from '../smoothing/moving-fit.ts';
import type { DrumPlace, DynoProfile, TorqueChannel } from '../dyno/dyno-profile.ts';
import { drumsIn } from '../dyno/drums.ts';
import { impulse } from './impulse.ts';
import { joinedDrums, type DrumMotion } from './joined-drums.ts';

/**
 * What the reduction works on: the drum's motion on one time base, all arrays
 * of one length.
 */
export interface Drive {
  time: Float64Array;
  /** Drum or hub speed, rad/s; the mean of all where several are recorded. */
  speed: Float64Array;
  /** Angular impulse that entered the drum, N·m·s: its slope is the torque delivered, referred to `speed`. */
  impulse: Float64Array;
  /** Engine speed ÷ drum speed at each time. */
  ratio: Float64Array;
  /** Where the engine speed comes from. */
  engineSpeedFrom: 'pickup' | 'ratio';
  /** What the pickup read, rpm, unsmoothed. */
  pickup: Float64Array | undefined;
  /** Percent. */
  throttle: Float64Array | undefined;
  /** Holes in the recording, and steps of its clock: these are taken back in `time`. */
  clock: { gaps: SampleGap[]; jumps: ClockJump[] };
  /** Each drum or hub by itself, where several are recorded. */
  drums: readonly DrumMotion[] | undefined;
}

/** Samples a second that the fits are made from; faster recordings are averaged down to it. */
export const workingRateHz = 200;
/** The slip of tyres and the rounding of a pickup are averaged over this time, s. */
const ratioSpanS = 0.8;

/**
 * Picks the channels that the reduction needs out of a recording.
 *
 * @param engineToDrumRatio engine speed ÷ drum speed, used where there is no pickup, or no speed of the drum
 * @throws Refusal when there is no speed to work with, or a load without its torque
 */
export function driveOf(recording: Recording, dyno: DynoProfile, engineToDrumRatio?: number): Drive {
  const pickup = valuesOf(recording, 'engineSpeed');
  if (!pickup && engineToDrumRatio === undefined) {
    throw new Refusal(
      'The recording has no engineSpeed channel: give the ratio of engine speed to drum speed, or record a pickup.',
    );
  }
  const motions = motionsOf(recording, dyno, pickup, engineToDrumRatio);
  const throttle = valuesOf(recording, 'throttle');
  const taken = [...motions.flatMap(({ speed, absorber }) => [speed, absorber]), pickup, throttle];
  const present = taken.filter((series) => series !== undefined);
  const clock = clockFaults(recording.time, fastest(motions).speed);
  const averaged = blockAverage(withoutJumps(recording.time, clock.jumps), present, workingRateHz);
  let next = 0;
  const rest = taken.map((series) => (series ? averaged.series[next++] : undefined));
  const { time } = averaged;
  const drums = motions.flatMap(({ place }, at) =>
    place ? [{ place, speed: rest[2 * at]!, absorber: rest[2 * at + 1] }] : [],
  );
  const joined = drums.length > 0 ? joinedDrums(time, drums, dyno) : undefined;
  const speed = joined?.speed ?? rest[0]!;
  const pickupTaken = rest[taken.length - 2];
  return {
    time,
    speed,
    impulse: joined?.impulse ?? impulse(time, speed, rest[1], dyno),
    ratio: pickupTaken
      ? smoothRatio(time, speed, pickupTaken)
      : new Float64Array(speed.length).fill(engineToDrumRatio ?? NaN),
    engineSpeedFrom: pickupTaken ? 'pickup' : 'ratio',
    pickup: pickupTaken,
    throttle: rest[taken.length - 1],
    clock: repaired(clock),
    drums: joined?.drums,
  };
}

/** The faults at their places on the clock without its steps. */
function repaired({ gaps, jumps }: Drive['clock']): Drive['clock'] {
  const shifted = <Fault extends { atS: number }>(fault: Fault): Fault => ({
    ...fault,
    atS: jumps.reduce((sum, jump) => sum - (fault.atS > jump.atS ? jump.byS : 0), fault.atS),
  });
  return { gaps: gaps.map(shifted), jumps: jumps.map(shifted) };
}

interface Motion {
  place: DrumPlace | undefined;
  speed: Float64Array;
  absorber: Float64Array | undefined;
}

/** Speed and absorber torque of the drum, or of every drum. */
function motionsOf(
  recording: Recording,
  dyno: DynoProfile,
  pickup: Float64Array | undefined,
  ratio: number | undefined,
): Motion[] {
  if (dyno.kind === 'road')
    throw new Refusal('It was driven on the road: no drum turned under it, so no power can be made of it.');
  const drums = drumsIn(
    recording.channels.map(({ name }) => name),
    dyno.kind,
  );
  if (drums)
    return drums.map(({ place, speed, torque }) => ({
      place,
      speed: valuesOf(recording, speed) ?? new Float64Array(recording.time.length),
      absorber: dyno.kind === 'inertia-roller' ? undefined : torqueOf(recording, dyno, torque as TorqueChannel),
    }));
  const absorber = dyno.kind === 'inertia-roller' ? undefined : torqueOf(recording, dyno, 'absorberTorque');
  if (dyno.kind !== 'inertia-roller' && !absorber) {
    throw new Refusal(`A ${dyno.kind} recording needs an absorberTorque channel, and this one has none.`);
  }
  return [{ place: undefined, speed: drumSpeed(recording, dyno, pickup, ratio), absorber }];
}

/** The drum that turns fastest at its best: on a dyno with two axles one may stand. */
function fastest(motions: readonly Motion[]): Motion {
  const top = ({ speed }: Motion) => speed.reduce((most, value) => (value > most ? value : most), 0);
  return motions.reduce((best, motion) => (top(motion) > top(best) ? motion : best));
}

/** A load cell's reading less what it reads with nothing on it. */
function torqueOf(recording: Recording, dyno: DynoProfile, channel: TorqueChannel): Float64Array | undefined {
  const zero = dyno.absorberZeroNm?.[channel] ?? 0;
  const values = valuesOf(recording, channel);
  return zero === 0 ? values : values?.map((value) => value - zero);
}

function drumSpeed(
  recording: Recording,
  dyno: DynoProfile,
  pickup: Float64Array | undefined,
  ratio: number | undefined,
): Float64Array {
  const turning = valuesOf(recording, 'rollerSpeed') ?? valuesOf(recording, 'hubSpeed');
  if (turning) return turning;
  const surface = valuesOf(recording, 'surfaceSpeed');
  if (surface) {
    const { radiusM } = dyno;
    if (!radiusM) throw new Refusal('A surfaceSpeed channel needs the drum radius (radiusM) in the dyno profile.');
    return surface.map((metresPerSecond) => metresPerSecond / radiusM);
  }
  // Without a speed of the drum, the engine's and a known ratio give it; creep then counts as speed of the drum.
  if (pickup && ratio) return pickup.map((rpm) => rpm / rpmPerRadS / ratio);
  throw new Refusal(
    'The recording has no rollerSpeed, hubSpeed or surfaceSpeed channel: no power can be made from it. With the ratio given, an engineSpeed channel would do.',
  );
}

/** Engine speed at each time of a drive, rpm: the drum's, times the ratio there. */
export function engineRpmOf({ speed, ratio }: Pick<Drive, 'speed' | 'ratio'>): Float64Array {
  return seriesOf(speed.length, (index) => speed[index]! * ratio[index]! * rpmPerRadS);
}

/** Pickup ÷ drum speed, smoothed: it varies slowly (creep), while a pickup rounds to several rpm. */
export function smoothRatio(time: Float64Array, speed: Float64Array, pickup: Float64Array): Float64Array {
  const raw = seriesOf(speed.length, (index) =>
    speed[index]! > 1 ? pickup[index]! / rpmPerRadS / speed[index]! : NaN,
  );
  return slopes(time, raw, ratioSpanS).value;
}
