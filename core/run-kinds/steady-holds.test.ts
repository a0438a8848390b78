import { describe, expect, test } from '@jest/globals';
import { steppedDyno, steppedRatio, steppedRun } from '../testing/stepped-run.ts';
import { truePowerKw } from '../testing/test-car.ts';
import { holdFigures } from './hold-figures.ts';
import { written } from '../sentence/sentence.ts';
import { steadyHolds, usualStepSettings } from './steady-holds.ts';

const speedsRpm = [2500, 3000, 3500, 4000];

test('a hold that the plan does not name is left out; where none of it was driven, what was driven is told', () => {
  const recording = steppedRun({ speedsRpm, dwellS: 4 });
  const speedsOf = (planned?: { speedsRpm: number[] }) => [
    ...new Set(
      holdFigures(recording, steppedDyno, steppedRatio, [], planned).figures.map(({ id }) => id.split('|')[0]),
    ),
  ];
  expect(speedsOf()).toHaveLength(4);
  expect(speedsOf({ speedsRpm: [2500, 4050] })).toEqual(['2,500 rpm', '4,000 rpm']);
  expect(speedsOf({ speedsRpm: [5500] })).toHaveLength(4);
});

test('a sensor that reads the same at every hold is found, one that follows the load is not', () => {
  const recording = steppedRun({ speedsRpm: [1600, 3000, 4500, 6000], dwellS: 4 });
  const speed = recording.channels.find(({ unit }) => unit === 'rad/s') ?? recording.channels[0]!;
  const withExhaust = (of: (at: number) => number) => ({
    ...recording,
    channels: [
      ...recording.channels,
      { name: 'exhaustTemperature', unit: '°C', values: speed.values.map((_, at) => of(at)) },
    ],
  });
  const foundIn = (of: (at: number) => number) =>
    holdFigures(withExhaust(of), steppedDyno, steppedRatio, []).found.map(({ id, message }) => [id, written(message)]);
  expect(foundIn(() => 420)).toEqual([
    ['flat-sensor', expect.stringMatching(/^Exhaust reads 420 °C at every hold, from \d+(\.\d)? kW to \d+/)],
  ]);
  expect(foundIn((at) => 420 + at / 4)).toEqual([]);
});

describe('steady holds', () => {
  test.each([20, 100, 500])('each held speed is found, with the true power, at %d Hz', (rateHz) => {
    const holds = steadyHolds(steppedRun({ speedsRpm, dwellS: 4, rateHz }), steppedDyno, steppedRatio);
    expect(holds.map((hold) => Math.round(hold.engineSpeedRpm.mean / 50) * 50)).toEqual(speedsRpm);
    for (const hold of holds) {
      const truth = truePowerKw(hold.engineSpeedRpm.mean, steppedRatio);
      expect(Math.abs(hold.powerKw.mean - truth)).toBeLessThan(0.02 * truth);
      expect(hold.settlingS).toBeGreaterThanOrEqual(0);
      expect(hold.settlingS).toBeLessThan(2.5);
      expect(hold.count).toBeGreaterThan(10);
      expect(hold.engineSpeedRpm.sd).toBeLessThan(10);
      expect(hold.torqueNm.mean * hold.engineSpeedRpm.mean).toBeCloseTo(
        (hold.powerKw.mean * 60000) / (2 * Math.PI),
        -4,
      );
    }
  });

  test('the interval of a hold holds the truth nineteen times in twenty, correlated as the torque is', () => {
    let covered = 0;
    let tried = 0;
    for (let seed = 1; seed <= 60; seed++) {
      const run = steppedRun({ speedsRpm: [3000, 3600], dwellS: 6, seed, settlingS: 0.05, torqueNoiseNm: 6 });
      for (const { powerKw, engineSpeedRpm } of steadyHolds(run, steppedDyno, steppedRatio)) {
        tried++;
        if (Math.abs(powerKw.mean - truePowerKw(engineSpeedRpm.mean, steppedRatio)) <= powerKw.halfWidth) covered++;
      }
    }
    expect(tried).toBe(120);
    expect(covered / tried).toBeGreaterThan(0.88);
    expect(covered / tried).toBeLessThan(0.995);
  });

  test('a slow torque is left to settle before figures are made', () => {
    const [hold] = steadyHolds(steppedRun({ speedsRpm: [3000], dwellS: 8, settlingS: 0.8 }), steppedDyno, steppedRatio);
    expect(hold!.settlingS).toBeGreaterThan(0.5);
    expect(hold!.endS - hold!.startS).toBeGreaterThan(6);
  });

  test('a pull without holds, and holds shorter than asked for, are refused in a sentence', () => {
    const run = steppedRun({ speedsRpm, dwellS: 1, rampS: 1 });
    expect(() => steadyHolds(run, steppedDyno, steppedRatio, { ...usualStepSettings, leastS: 3 })).toThrow(
      /held steady .* 3 s/,
    );
  });
});
