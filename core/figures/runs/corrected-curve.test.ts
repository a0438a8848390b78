import { describe, expect, test } from '@jest/globals';
import { readFileSync } from 'node:fs';
import { readRecordingCsv } from '../../exchange/recordings/read-csv.ts';
import { interpolate } from '../../numerics/interpolation.ts';
import { Refusal } from '../../refusal.ts';
import { spanLimits } from '../../smoothing/span.ts';
import { chance, normal } from '../../testing/chance.ts';
import { generatedRun } from '../../testing/generated-run.ts';
import { testDyno, truePowerKw, usualTorque } from '../../testing/test-car.ts';
import type { DynoProfile } from '../../dyno/dyno-profile.ts';
import { curveOf, type Curve } from './corrected-curve.ts';
import { preparedSweep } from '../../reduction/prepared-sweep.ts';
import { resolvedSpan } from '../../reduction/auto-span.ts';
import type { GeneratedRun } from '../../testing/pull-options.ts';

const plain = { standard: 'none', share: 1, gridRpm: 25 } as const;

function reduced(
  options: GeneratedRun & { smoothing?: number | 'auto'; ratioGiven?: number } = {},
  dyno = testDyno,
): Curve {
  const sweep = preparedSweep(generatedRun(options), dyno, options.ratioGiven);
  return curveOf(sweep, undefined, { ...plain, spanRpm: resolvedSpan(options.smoothing ?? 'auto', [sweep]) });
}

function rmsPercent(curve: Curve, truth = (rpm: number) => truePowerKw(rpm)): number {
  const peak = Math.max(...Array.from(curve.engineSpeedRpm, truth));
  const squares = Array.from(
    curve.engineSpeedRpm,
    (rpm, index) => (curve.uncorrectedPowerKw[index]! - truth(rpm)) ** 2,
  );
  return (100 * Math.sqrt(squares.reduce((sum, value) => sum + value, 0) / squares.length)) / peak;
}

describe('inertia roller', () => {
  test('clean recording: the true power within 0.05 %', () => {
    expect(rmsPercent(reduced({ smoothing: 150 }))).toBeLessThan(0.05);
  });

  test.each([20, 50, 200, 1000])('at %d Hz with noise, auto stays within 0.25 %', (rateHz) => {
    const speedNoise = 0.015 * Math.sqrt(rateHz / 200);
    for (const seed of [1, 2, 3]) expect(rmsPercent(reduced({ rateHz, speedNoise, seed }))).toBeLessThan(0.25);
  });

  test('on a smooth curve auto is not led to a narrow span by the noise of narrow spans', () => {
    for (let seed = 1; seed <= 12; seed++) {
      const runs = [0, 100, 200].map((more) =>
        preparedSweep(generatedRun({ speedNoise: 0.01, seed: seed + more }), testDyno),
      );
      expect(spanLimits(resolvedSpan('auto', runs))[0]).toBeGreaterThanOrEqual(240);
    }
  });

  test('a dip of 230 rpm keeps nine tenths of its depth under auto', () => {
    const dipped = (rpm: number) => usualTorque(rpm) * (1 - 0.08 * Math.exp(-4 * Math.LN2 * ((rpm - 4000) / 230) ** 2));
    const curve = reduced({ speedNoise: 0.004, drumTorque: dipped });
    const at = curve.engineSpeedRpm.indexOf(4000);
    const depth = 1 - curve.uncorrectedPowerKw[at]! / truePowerKw(4000);
    expect(depth / 0.08).toBeGreaterThan(0.9);
  });

  test('ten percent more inertia moves only the inertial share', () => {
    const usual = reduced({ smoothing: 150 });
    const heavier = reduced({ smoothing: 150 }, { ...testDyno, inertiaKgM2: testDyno.inertiaKgM2 * 1.1 });
    usual.engineSpeedRpm.forEach((rpm, index) => {
      const drum = (rpm * 2 * Math.PI) / 60 / 3.4;
      const lossKw = ((5 + 0.05 * drum + 0.0005 * drum ** 2) * drum) / 1000;
      const expected = usual.uncorrectedPowerKw[index]! + 0.1 * (usual.uncorrectedPowerKw[index]! - lossKw);
      expect(heavier.uncorrectedPowerKw[index]! / expected).toBeCloseTo(1, 3);
    });
  });

  test('the sweep leaves lead-in, tip-in and coast out', () => {
    const { sweep, checks } = reduced({ speedNoise: 0.01 });
    expect(sweep.startS).toBeGreaterThan(1.6);
    expect(sweep.startRpm).toBeLessThan(2250);
    expect(sweep.endRpm).toBeGreaterThan(6440);
    expect(sweep.endRpm).toBeLessThan(6510);
    expect(checks.map((check) => check.id)).not.toContain('cut-run');
  });

  test.each([
    [4, 0.08, 0.25],
    [6, 0.05, 0.3],
    [7, 0.02, 0.2],
  ])(
    'a driveline that shuffles at %d Hz by %d rad/s for %d s is waited for, and no longer',
    (hz, amplitude, decayS) => {
      const shuffle = { hz, amplitude, decayS };
      const curve = reduced({ speedNoise: 0.01, shuffle });
      expect(rmsPercent(curve)).toBeLessThan(0.25);
      expect(spanLimits(curve.spanRpm)[0]).toBeGreaterThanOrEqual(240);
      // What is left of the swing at the start is a small part of the pull's own acceleration of about 8 rad/s².
      const left = amplitude * 2 * Math.PI * hz * Math.exp(-(curve.sweep.startS - 1.5) / decayS);
      expect(left).toBeLessThan(0.6);
      expect(curve.sweep.startS).toBeLessThan(1.5 + 1.45);
    },
  );

  test('a stab that was abandoned stays out', () => {
    const stab = generatedRun({ toRpm: 2700, coastS: 3 });
    const pull = generatedRun({});
    const offset = stab.time.at(-1)! + 0.005;
    const joined = {
      time: Float64Array.of(...stab.time, ...pull.time.map((at) => at + offset)),
      channels: pull.channels.map((channel, index) => ({
        ...channel,
        values: Float64Array.of(...stab.channels[index]!.values, ...channel.values),
      })),
    };
    expect(preparedSweep(joined, testDyno).sweep.startS).toBeGreaterThan(offset + 1.5);
  });

  test('without a pickup the ratio serves and the result says so', () => {
    const curve = reduced({ pickup: false, ratioGiven: 3.4, smoothing: 150 });
    expect(curve.engineSpeedFrom).toBe('ratio');
    expect(rmsPercent(curve)).toBeLessThan(0.05);
    expect(() => reduced({ pickup: false })).toThrow(/engineSpeed/);
  });

  test('uneven and dropped samples change little', () => {
    const random = chance(9);
    const full = generatedRun({ speedNoise: 0.01 });
    const keep = Array.from(full.time, () => random() > 0.25);
    const thinned = {
      time: full.time.filter((_, index) => keep[index]!),
      channels: full.channels.map((channel) => ({
        ...channel,
        values: channel.values.filter((_, index) => keep[index]!),
      })),
    };
    const sweep = preparedSweep(thinned, testDyno);
    expect(rmsPercent(curveOf(sweep, undefined, { ...plain, spanRpm: 400 }))).toBeLessThan(0.25);
  });

  test('a recording cut before the lift says so', () => {
    const full = generatedRun({});
    const cut = full.time.findIndex((at) => at > 6);
    const curve = curveOf(
      preparedSweep(
        {
          time: full.time.slice(0, cut),
          channels: full.channels.map((channel) => ({ ...channel, values: channel.values.slice(0, cut) })),
        },
        testDyno,
      ),
      undefined,
      { ...plain, spanRpm: 200 },
    );
    expect(curve.checks.map((check) => check.id)).toEqual(expect.arrayContaining(['cut-run', 'still-climbing']));
  });

  test('no sweep is refused', () => {
    const noise = normal(chance(2));
    const time = Float64Array.from({ length: 2000 }, (_, index) => index / 200);
    const steady = {
      time,
      channels: [
        { name: 'rollerSpeed', unit: 'rad/s', values: time.map(() => 60 + 0.01 * noise()) },
        { name: 'engineSpeed', unit: 'rpm', values: time.map(() => 2000) },
      ],
    };
    expect(() => preparedSweep(steady, testDyno)).toThrow(Refusal);
  });
});

test('a load cell that lags is taken back before it is added', () => {
  const loaded = { ...testDyno, kind: 'loaded-roller', loadCellLagS: 0.05 } as const;
  const run = generatedRun({});
  // The absorber takes nothing off the drum here, so a ramp in it adds to the reading exactly as it truly stands.
  const absorber = run.time.map((at) => 20 * (at - loaded.loadCellLagS));
  const recording = { ...run, channels: [...run.channels, { name: 'absorberTorque', unit: 'N·m', values: absorber }] };
  const sweep = preparedSweep(recording, loaded);
  const curve = curveOf(sweep, undefined, { ...plain, spanRpm: 150 });
  const without = curveOf(preparedSweep(run, testDyno), undefined, { ...plain, spanRpm: 150 });
  const at = curve.engineSpeedRpm.indexOf(4000);
  const drum = (4000 * 2 * Math.PI) / 60 / 3.4;
  const timeThere = run.time[run.channels[1]!.values.findIndex((rpm) => rpm >= 4000)]!;
  expect(((curve.uncorrectedPowerKw[at]! - without.uncorrectedPowerKw[at]!) * 1000) / drum / 20).toBeCloseTo(
    timeThere,
    1,
  );
});

test('a recording that another generator made: its truth within 0.25 % of the peak, the peak within 0.4 %', () => {
  const file = (name: string) => readFileSync(`core/testing/cases/inertia-roller-petrol/${name}`, 'utf8');
  const { recording, remarks } = readRecordingCsv(file('run.csv'));
  expect(remarks).toEqual([]);
  const sweep = preparedSweep(recording, JSON.parse(file('dyno.json')) as DynoProfile);
  const curve = curveOf(sweep, undefined, { ...plain, spanRpm: resolvedSpan('auto', [sweep]) });
  const rows = file('truth.csv')
    .trim()
    .split('\n')
    .slice(1)
    .map((line) => line.split(',').map(Number) as [number, number]);
  const [speeds, powers] = [Float64Array.from(rows, ([rpm]) => rpm), Float64Array.from(rows, ([, kw]) => kw)];
  const peak = Math.max(...powers);
  const known = (rpm: number) => interpolate(speeds, powers, rpm);
  const covered = curve.engineSpeedRpm.filter((rpm) => rpm >= speeds[0]! && rpm <= speeds.at(-1)!);
  expect(covered.length).toBeGreaterThan(0.97 * rows.length);
  const squares = Array.from(
    covered,
    (rpm) => (interpolate(curve.engineSpeedRpm, curve.uncorrectedPowerKw, rpm) - known(rpm)) ** 2,
  );
  expect((100 * Math.sqrt(squares.reduce((sum, value) => sum + value, 0) / squares.length)) / peak).toBeLessThan(0.25);
  expect(Math.abs(curve.peakPower.value / peak - 1)).toBeLessThan(0.004);
});
