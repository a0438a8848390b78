import { sampleAt } from '../numerics/sample-at.ts';
import type { Recording } from '../recording/recording.ts';
import { firstNotBelow } from '../numerics/interpolation.ts';
import { driveOf } from '../reduction/drive.ts';
import type { DynoProfile } from '../dyno/dyno-profile.ts';
import { Refusal } from '../refusal.ts';
import { atLeastSamples, slopes } from '../smoothing/moving-fit.ts';
import { meanOfSamples, type MeanOfSamples } from '../statistics/mean-of-samples.ts';
import { rpmPerRadS } from '../units/units.ts';
import { engineTorqueNm } from '../curve/engine-torque.ts';
import { seriesOf } from '../numerics/picked.ts';
import { meanOf, scatterOf } from '../numerics/mean.ts';

/** One steady hold of a step test. */
export interface SteadyHold {
  /** The hold: speed steady. */
  startS: number;
  endS: number;
  /** From the start of the hold until torque had settled, s; figures are made of what follows. */
  settlingS: number;
  /** Samples that the figures are made of. */
  count: number;
  engineSpeedRpm: MeanOfSamples;
  /** Uncorrected, at the roller or hub. */
  powerKw: MeanOfSamples;
  /** Engine-referred. */
  torqueNm: MeanOfSamples;
}

export interface StepSettings {
  /** Speed counts as held while it changes by less than this share of itself in a second. */
  steadyShare: number;
  /** A shorter hold is none, s. */
  leastS: number;
}

export const usualStepSettings: StepSettings = { steadyShare: 0.01, leastS: 1.5 };

/** Speed and torque are looked at over these times, s. */
const speedSpanS = 0.6;
const torqueSpanS = 0.2;
/** The pedal is looked at over this time, s; faster than this, % a second, it goes to another load. */
const pedalSpanS = 0.4;
const movingPedal = 12;
/** A break this short does not end a hold, s. */
const bridgedS = 0.25;
/** Less torque than this share of the recording's highest is no load: idling, coasting. */
const leastLoad = 0.05;
/** Torque has settled once it stays within this share, or so many of the hold's own standard deviations, of its later mean. */
const settledShare = 0.02;
const settledSds = 3;

/**
 * Finds the steady holds of a step test by the speed alone, and makes mean,
 * scatter and count of each from the part in which torque has settled too.
 * Torque is the slope of the impulse over 0.2 s: inertia counts while the
 * speed still creeps.
 *
 * @throws Refusal when nothing in the recording is held steady
 */
export function steadyHolds(
  recording: Recording,
  dyno: DynoProfile,
  engineToDrumRatio?: number,
  settings: StepSettings = usualStepSettings,
): SteadyHold[] {
  const { time, speed, impulse, ratio, throttle } = driveOf(recording, dyno, engineToDrumRatio);
  const pedal = throttle && slopes(time, throttle, atLeastSamples(time, pedalSpanS, 6)).slope;
  const held = slopes(time, speed, atLeastSamples(time, speedSpanS, 6));
  const torque = slopes(time, impulse, atLeastSamples(time, torqueSpanS, 4)).slope;
  const most = torque.reduce((top, value) => (value > top ? value : top), 0);
  const holds: [number, number][] = [];
  for (let index = 0; index < time.length; index++) {
    const steady = Math.abs(sampleAt(held.slope, index)) < settings.steadyShare * sampleAt(held.value, index);
    // At one speed the next load is another hold: the pedal moves between them.
    const moves = pedal !== undefined && Math.abs(sampleAt(pedal, index)) > movingPedal;
    if (!steady || moves || !(sampleAt(torque, index) > leastLoad * most)) continue;
    const last = holds.at(-1);
    // A new step is another hold, however fast it was reached.
    const same =
      last && Math.abs(sampleAt(held.value, index) / sampleAt(held.value, last[1]) - 1) < 2 * settings.steadyShare;
    if (last && same && sampleAt(time, index) - sampleAt(time, last[1]) <= bridgedS) last[1] = index;
    else holds.push([index, index]);
  }
  const found = holds
    .filter(([first, last]) => sampleAt(time, last) - sampleAt(time, first) >= settings.leastS)
    .map(([first, last]) => figures({ time, speed, torque, ratio }, first, last));
  if (found.length === 0) {
    throw new Refusal(
      `Nothing in the recording is held steady under load for ${settings.leastS} s: hold each speed longer, or allow more change with a wider tolerance.`,
    );
  }
  return found;
}

interface Traces {
  time: Float64Array;
  speed: Float64Array;
  torque: Float64Array;
  ratio: Float64Array;
}

function figures({ time, speed, torque, ratio }: Traces, first: number, last: number): SteadyHold {
  const settled = settledFrom(time, torque, first, last);
  const series = (make: (index: number) => number) => seriesOf(last - settled + 1, (index) => make(settled + index));
  const rpm = series((index) => sampleAt(speed, index) * sampleAt(ratio, index) * rpmPerRadS);
  const power = series((index) => (sampleAt(torque, index) * sampleAt(speed, index)) / 1000);
  return {
    startS: sampleAt(time, first),
    endS: sampleAt(time, last),
    settlingS: sampleAt(time, settled) - sampleAt(time, first),
    count: last - settled + 1,
    engineSpeedRpm: meanOfSamples(rpm),
    powerKw: meanOfSamples(power),
    torqueNm: meanOfSamples(power.map((kw, index) => engineTorqueNm(kw, sampleAt(rpm, index)))),
  };
}

/** The first sample from which on torque keeps to the mean of the hold's later half. */
function settledFrom(time: Float64Array, torque: Float64Array, first: number, last: number): number {
  const middle = firstNotBelow(time, (sampleAt(time, first) + sampleAt(time, last)) / 2);
  const later = torque.subarray(middle, last + 1);
  const mean = meanOf(later);
  const sd = Math.sqrt(scatterOf(later) / later.length);
  const within = Math.max(settledShare * Math.abs(mean), settledSds * sd);
  let from = middle;
  while (from > first && Math.abs(sampleAt(torque, from - 1) - mean) <= within) from--;
  return from;
}
