import type { Recording } from '../recording/recording.ts';
import type { GeneratedRun } from './pull-options.ts';
import { interpolate } from '../numerics/interpolation.ts';
import { chance } from './chance.ts';
import { Pull } from './pull.ts';
import { sampled } from './sensors.ts';
import type { PullState } from './pull-state.ts';

export interface GeneratedTruth {
  recording: Recording;
  /** True power at the drum over engine speed during the pull, kW; NaN outside. */
  powerKw: (rpm: number) => number;
  /** When the throttle opened for the pull that counts, and when it closed, s. */
  openedS: number;
  liftedS: number;
}

export function generatedRun(options: GeneratedRun = {}): Recording {
  return generatedTruth(options).recording;
}

/** The run and what it should be found to hold. */
export function generatedTruth(options: GeneratedRun = {}): GeneratedTruth {
  const rateHz = options.rateHz ?? 200;
  const pull = new Pull(options);
  const stepS = 1 / (rateHz * Math.max(1, Math.round((options.stepHz ?? 1000) / rateHz)));
  const states: PullState[] = [];
  while (!pull.ended) {
    states.push(pull.step(stepS));
    if (states.length * stepS > 240) throw new RangeError('the generated pull never reaches its end speed');
  }
  const inPull = states.filter((state) => state.phase === 'pull' && state.openness > 0.999 && !state.disturbed);
  const rising = inPull.filter((state, index) => index === 0 || state.engineRpm > inPull[index - 1]!.engineRpm);
  const rpm = Float64Array.from(rising, (state) => state.engineRpm);
  const powerKw = Float64Array.from(rising, (state) => (state.drumTorqueNm * state.speedRadS) / 1000);
  const recording = sampled(states, { ...options, rateHz }, chance((options.seed ?? 1) * 7919 + 1));
  return {
    recording,
    powerKw: (at) => (at < rpm[0]! || at > rpm[rpm.length - 1]! ? NaN : interpolate(rpm, powerKw, at)),
    openedS: pull.openedS,
    liftedS: pull.liftedS,
  };
}
