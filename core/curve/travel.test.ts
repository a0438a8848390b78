import { describe, expect, test } from '@jest/globals';
import { meanTravel } from './travel.ts';

const rpm = Float64Array.of(2000, 3000, 4000, 5000);
const speeds = rpm.subarray(1);

describe('how runs went through the speeds', () => {
  test('time counts from the first speed, whatever each run’s own began with', () => {
    const run = (shift: number) => ({ engineSpeedRpm: rpm, timeS: Float64Array.of(0, 1, 2, 4).map((s) => s + shift) });
    expect([...meanTravel([run(0), run(7)], speeds).timeS]).toEqual([0, 1, 3]);
  });

  test('means between runs, and road speed only where every run has one', () => {
    const slow = { engineSpeedRpm: rpm, timeS: Float64Array.of(0, 2, 4, 6), roadSpeedKmh: rpm.map((at) => at / 50) };
    const fast = { engineSpeedRpm: rpm, timeS: Float64Array.of(0, 1, 2, 3), roadSpeedKmh: rpm.map((at) => at / 40) };
    const mean = meanTravel([slow, fast], speeds);
    expect([...mean.timeS]).toEqual([0, 1.5, 3]);
    expect(mean.roadSpeedKmh![0]).toBeCloseTo(67.5, 9);
    expect(meanTravel([slow, { engineSpeedRpm: rpm, timeS: fast.timeS }], speeds).roadSpeedKmh).toBeUndefined();
  });
});
