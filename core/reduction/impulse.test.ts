import { expect, test } from '@jest/globals';
import { impulse } from './impulse.ts';
import { driveOf } from './drive.ts';
import { LivePower } from './live-power.ts';
import type { DynoProfile } from '../dyno/dyno-profile.ts';
import { testDyno } from '../testing/test-car.ts';

const free: DynoProfile = { ...testDyno, inertiaKgM2: 12, parasitic: { aNm: 0, bNmPerRadS: 0, cNmPerRadS2: 0 } };
/** Unevenly, as instruments send. */
const time = Float64Array.of(0, 0.1, 0.15, 0.4, 1);

test('is what spins the drum, and all that was braked since the beginning, by the trapezium rule', () => {
  const speed = time.map((at) => 40 + 20 * at);
  expect([...impulse(time, speed, undefined, free)]).toEqual([...speed.map((radS) => 12 * radS)]);
  // A loss in proportion to a speed that grows evenly: its area is exact.
  const viscous = impulse(time, speed, undefined, { ...free, parasitic: { aNm: 3, bNmPerRadS: 0.5, cNmPerRadS2: 0 } });
  time.forEach((at, index) =>
    expect(viscous[index]).toBeCloseTo(12 * speed[index]! + 3 * at + 0.5 * (40 * at + 10 * at ** 2), 9),
  );
  // A quadratic one at a steady speed.
  const steady = time.map(() => 50);
  const windage = impulse(time, steady, undefined, {
    ...free,
    parasitic: { aNm: 0, bNmPerRadS: 0, cNmPerRadS2: 0.01 },
  });
  time.forEach((at, index) => expect(windage[index]).toBeCloseTo(600 + 25 * at, 9));
});

test('a load cell adds its torque, and its lag what it still has to show', () => {
  const speed = time.map(() => 50);
  const absorber = time.map((at) => 100 + 60 * at);
  const read = impulse(time, speed, absorber, { ...free, loadCellLagS: 0.2 });
  time.forEach((at, index) =>
    expect(read[index]).toBeCloseTo(600 + 100 * at + 30 * at ** 2 + 0.2 * (100 + 60 * at), 9),
  );
});

test('what a load cell reads with nothing on it is taken off, in figures and while the run goes on', () => {
  const rows = 400;
  const at = Float64Array.from({ length: rows }, (_, row) => row / 100);
  const roller: DynoProfile = { ...free, kind: 'loaded-roller', radiusM: 0.3 };
  const channels = (torque: number) => [
    { name: 'rollerSpeed', unit: 'rad/s', values: at.map((s) => 40 + 5 * s) },
    { name: 'absorberTorque', unit: 'N·m', values: at.map(() => torque) },
    { name: 'engineSpeed', unit: 'rpm', values: at.map((s) => 2000 + 250 * s) },
  ];
  const impulseOf = (torque: number, zero: number) =>
    driveOf({ time: at, channels: channels(torque) }, { ...roller, absorberZeroNm: { absorberTorque: zero } }, 5)
      .impulse;
  const [drifted, sound] = [impulseOf(107, 7), impulseOf(100, 0)];
  expect(Math.max(...drifted.map((value, index) => Math.abs(value - sound[index]!)))).toBeLessThan(1e-6);
  const liveKw = (torque: number, zero: number) => {
    const live = new LivePower({ ...roller, absorberZeroNm: { absorberTorque: zero } });
    let last: unknown;
    for (let row = 0; row < rows; row++)
      last = live.push(at[row]!, 2000 + 250 * at[row]!, [{ speed: 40 + 5 * at[row]!, absorber: torque }]) ?? last;
    return last;
  };
  expect(liveKw(107, 7)).toEqual(liveKw(100, 0));
  expect(liveKw(107, 0)).not.toEqual(liveKw(100, 0));
});
