import { expect, test } from '@jest/globals';
import { motionReader } from './dyno.ts';

const dyno = {
  kind: 'inertia-roller',
  inertiaKgM2: 50,
  radiusM: 0.25,
  parasitic: { aNm: 0, bNmPerRadS: 0, cNmPerRadS2: 0 },
} as const;
const row = Float64Array.of(0, 100, 3300);

test('motion is read from whichever channels the machine has', () => {
  expect(motionReader(['time', 'rollerSpeed', 'engineSpeed'], { dyno, engineToDrumRatio: null })(row)).toEqual({
    drumRadS: 100,
    surfaceMetresPerSecond: 25,
    engineRpm: 3300,
  });
  const withoutPickup = motionReader(['time', 'rollerSpeed'], { dyno, engineToDrumRatio: 3 })(row);
  expect(withoutPickup.engineRpm).toBeCloseTo(2864.79, 1);
  expect(motionReader(['time', 'surfaceSpeed'], { dyno, engineToDrumRatio: null })(row)).toEqual({
    drumRadS: 400,
    surfaceMetresPerSecond: 100,
    engineRpm: NaN,
  });
  expect(
    motionReader(['time', 'hubSpeedLeft', 'hubSpeedRight', 'absorberTorqueLeft', 'absorberTorqueRight'], {
      dyno: { ...dyno, kind: 'hub' },
      engineToDrumRatio: 3,
    })(Float64Array.of(0, 99, 101, 0, 0)).drumRadS,
  ).toBe(100);
  expect(
    motionReader(['time', 'hubSpeed'], { dyno: { ...dyno, radiusM: undefined }, engineToDrumRatio: null })(row)
      .surfaceMetresPerSecond,
  ).toBeNaN();
});
