import { describe, expect, test } from '@jest/globals';
import { healthyRun } from '../testing/families.ts';
import { generatedTruth, generatedRun } from '../testing/generated-run.ts';
import { testDyno } from '../testing/test-car.ts';
import { driveOf } from './drive.ts';
import { curveOf } from '../figures/runs/corrected-curve.ts';
import { preparedSweep } from './prepared-sweep.ts';

const view = { standard: 'none', share: 1, gridRpm: 25, spanRpm: 240 } as const;

describe('hub pair', () => {
  const spec = healthyRun('diesel-hub', 3);
  const each = {
    ...spec.dyno!,
    inertiaKgM2: spec.dyno!.inertiaKgM2 / 2,
    parasitic: { aNm: 0.5, bNmPerRadS: 0.01, cNmPerRadS2: 0 },
  };
  const truth = generatedTruth({
    ...spec,
    drums: [
      { place: 'left', torqueShare: 0.53, speedFactor: 1.01 },
      { place: 'right', torqueShare: 0.47, speedFactor: 0.99 },
    ],
  });

  test('power is the sum of both hubs, each torque times its own speed; the sides are told apart', () => {
    const curve = curveOf(preparedSweep(truth.recording, each, spec.ratio), undefined, view);
    const [left, right] = curve.drums!.map(({ powerKw }) => powerKw) as [Float64Array, Float64Array];
    const shares = Array.from(curve.engineSpeedRpm, (_, index) => left[index]! / (left[index]! + right[index]!));
    const mean = shares.reduce((sum, value) => sum + value, 0) / shares.length;
    expect(mean).toBeCloseTo((0.53 * 1.01) / (0.53 * 1.01 + 0.47 * 0.99), 3);
    curve.engineSpeedRpm.forEach((rpm, index) => {
      expect((left[index]! + right[index]!) / curve.uncorrectedPowerKw[index]!).toBeCloseTo(1, 9);
      const kw = truth.powerKw(rpm);
      if (!Number.isNaN(kw)) expect(Math.abs(curve.uncorrectedPowerKw[index]! / kw - 1)).toBeLessThan(0.03);
    });
  });

  test('a side whose torque is missing is named', () => {
    const half = {
      ...truth.recording,
      channels: truth.recording.channels.filter((channel) => channel.name !== 'absorberTorqueRight'),
    };
    expect(() => driveOf(half, each)).toThrow(/absorberTorqueRight/);
  });

  test('a right hub of another inertia is counted with its own', () => {
    const heavier = { ...each, rightInertiaKgM2: each.inertiaKgM2 * 3 };
    const usual = curveOf(preparedSweep(truth.recording, each, 4), undefined, view);
    const other = curveOf(preparedSweep(truth.recording, heavier, 4), undefined, view);
    const at = usual.engineSpeedRpm.indexOf(3000);
    expect(other.drums![0]!.powerKw[at]).toBeCloseTo(usual.drums![0]!.powerKw[at]!, 3);
    expect(other.drums![1]!.powerKw[at]).toBeGreaterThan(usual.drums![1]!.powerKw[at]!);
  });
});

describe('any mix of channels that suffices', () => {
  const run = generatedRun({ speedNoise: 0.004 });
  const named = (name: string) => run.channels.find((channel) => channel.name === name)!;
  const reference = curveOf(preparedSweep(run, testDyno), undefined, view);
  const at = (curve: typeof reference, rpm: number) => curve.uncorrectedPowerKw[curve.engineSpeedRpm.indexOf(rpm)]!;

  test('surface speed and the drum’s radius stand for drum speed', () => {
    const surface = {
      name: 'surfaceSpeed',
      unit: 'm/s',
      values: named('rollerSpeed').values.map((speed) => speed * 0.25),
    };
    const curve = curveOf(
      preparedSweep({ ...run, channels: [surface, named('engineSpeed')] }, testDyno),
      undefined,
      view,
    );
    expect(at(curve, 4000)).toBeCloseTo(at(reference, 4000), 6);
  });

  test('a pickup and the ratio stand for drum speed', () => {
    const fine = generatedRun({ speedNoise: 0.004, pickupStepRpm: 0.5 });
    const curve = curveOf(
      preparedSweep({ ...fine, channels: fine.channels.filter(({ name }) => name === 'engineSpeed') }, testDyno, 3.4),
      undefined,
      view,
    );
    expect(curve.engineSpeedFrom).toBe('pickup');
    expect(at(curve, 4000) / at(reference, 4000)).toBeCloseTo(1, 2);
  });

  test('what does not suffice is told', () => {
    expect(() => preparedSweep({ ...run, channels: [named('engineSpeed')] }, testDyno)).toThrow(/With the ratio given/);
    expect(() => preparedSweep({ ...run, channels: [named('rollerSpeed')] }, testDyno)).toThrow(/engineSpeed/);
    expect(() => preparedSweep(run, { ...testDyno, kind: 'loaded-roller' })).toThrow(/absorberTorque/);
  });
});
