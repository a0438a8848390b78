import type { Recording } from '../recording/recording.ts';
import type { DynoProfile } from '../dyno/dyno-profile.ts';
import { chance, normal, wandering } from './chance.ts';
import { testDyno, usualTorque } from './test-car.ts';

/** A step test with known means, for tests only. */
export interface SteppedRun {
  speedsRpm: readonly number[];
  dwellS: number;
  rampS?: number;
  rateHz?: number;
  seed?: number;
  /** Torque comes up to its value after the speed is reached, with this time constant, s. */
  settlingS?: number;
  torqueNoiseNm?: number;
}

export const steppedDyno: DynoProfile = { ...testDyno, kind: 'loaded-roller', inertiaKgM2: 6, loadCellLagS: 0.05 };

/** Engine speed ÷ drum speed of a stepped run. */
export const steppedRatio = 3.4;

/** Speeds held one after the other against an absorber, at full torque. */
export function steppedRun(options: SteppedRun): Recording {
  const { speedsRpm, dwellS, rampS = 1, rateHz = 100, settlingS = 0.3 } = options;
  const random = chance(options.seed ?? 1);
  const noise = normal(random);
  const wander = wandering(random, options.torqueNoiseNm ?? 3, 0.1);
  const { aNm, bNmPerRadS, cNmPerRadS2 } = steppedDyno.parasitic;
  const time: number[] = [];
  const speed: number[] = [];
  const absorber: number[] = [];
  const totalS = speedsRpm.length * (dwellS + rampS) + 1;
  let before = speedsRpm[0]! - 200;
  let torque = 0;
  let cell = 0;
  let wasDrum = (before * 2 * Math.PI) / 60 / steppedRatio;
  for (let at = 0; at < totalS; at += 1 / rateHz) {
    const step = Math.min(speedsRpm.length - 1, Math.floor(at / (dwellS + rampS)));
    const since = at - step * (dwellS + rampS);
    before = step === 0 ? speedsRpm[0]! - 200 : speedsRpm[step - 1]!;
    const rpm = since < rampS ? before + (since / rampS) * (speedsRpm[step]! - before) : speedsRpm[step]!;
    const drum = (rpm * 2 * Math.PI) / 60 / steppedRatio;
    torque += (usualTorque(rpm) - torque) * Math.min(1, 1 / rateHz / settlingS);
    const loss = aNm + bNmPerRadS * drum + cNmPerRadS2 * drum * drum;
    const load = torque + wander(1 / rateHz) - loss - steppedDyno.inertiaKgM2 * (drum - wasDrum) * rateHz;
    wasDrum = drum;
    cell += (load - cell) * (1 - Math.exp(-1 / rateHz / 0.05));
    time.push(at);
    speed.push(drum + 0.01 * noise());
    absorber.push(cell + noise());
  }
  return {
    time: Float64Array.from(time),
    channels: [
      { name: 'rollerSpeed', unit: 'rad/s', values: Float64Array.from(speed) },
      { name: 'absorberTorque', unit: 'N·m', values: Float64Array.from(absorber) },
    ],
  };
}
