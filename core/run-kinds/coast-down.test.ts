import { describe, expect, test } from '@jest/globals';
import { generatedRun } from '../testing/generated-run.ts';
import { testDyno } from '../testing/test-car.ts';
import { coastDown, lossAt } from './coast-down.ts';

const light = { ...testDyno, inertiaKgM2: 8, parasitic: { aNm: 6, bNmPerRadS: 0.05, cNmPerRadS2: 0.0006 } };
const truth = (speed: number) => 6 + 0.05 * speed + 0.0006 * speed * speed;
const coasting = (seed: number, over = {}) =>
  generatedRun({
    dyno: light,
    seed,
    speedNoise: 0.02,
    coastS: 45,
    drumTorque: () => 200,
    rateHz: 50,
    stepHz: 1500,
    ...over,
  });

describe('coast-down', () => {
  test('the loss torque comes out of a clean coast', () => {
    const found = coastDown(coasting(1, { speedNoise: 0.0005 }), light);
    expect(found.aNm.value).toBeCloseTo(6, 0);
    expect(found.cNmPerRadS2.value).toBeCloseTo(0.0006, 5);
    for (const speed of [60, 100, 150, 190]) expect(lossAt(found, speed).value / truth(speed)).toBeCloseTo(1, 2);
    expect(found.inertiaKgM2).toBe(8);
  });

  test('a recording that begins with a few rows far apart, as a dyno at rest sends them, has its coast all the same', () => {
    const run = coasting(1, { speedNoise: 0.0005 });
    const rest = [1.5, 1.2, 0.9, 0.6, 0.3].map((before) => run.time[0]! - before);
    const longer = (values: Float64Array) => Float64Array.of(...rest.map(() => values[0]!), ...values);
    const slow = {
      ...run,
      time: Float64Array.of(...rest, ...run.time),
      channels: run.channels.map((channel) => ({ ...channel, values: longer(channel.values) })),
    };
    expect(coastDown(slow, light).aNm.value).toBeCloseTo(coastDown(run, light).aNm.value, 1);
  });

  test('intervals of the coefficients and of the torque hold the truth', () => {
    let coefficients = 0;
    let torques = 0;
    const runs = 40;
    for (let seed = 1; seed <= runs; seed++) {
      const found = coastDown(coasting(seed), light);
      const { aNm, bNmPerRadS, cNmPerRadS2 } = found;
      const pairs = [
        [aNm, 6],
        [bNmPerRadS, 0.05],
        [cNmPerRadS2, 0.0006],
      ] as const;
      for (const [estimate, value] of pairs) if (estimate.low <= value && value <= estimate.high) coefficients++;
      for (const speed of [80, 120, 170]) {
        const { low, high } = lossAt(found, speed);
        if (low <= truth(speed) && truth(speed) <= high) torques++;
      }
    }
    for (const covered of [coefficients, torques]) {
      expect(covered / (3 * runs)).toBeGreaterThan(0.88);
      expect(covered / (3 * runs)).toBeLessThanOrEqual(1);
    }
  });

  test('what turns along with the drum is counted: the same coast over a larger inertia is a larger loss', () => {
    const run = coasting(3);
    const machine = lossAt(coastDown(run, light), 120).value;
    expect(lossAt(coastDown(run, light, 2), 120).value / machine).toBeCloseTo(10 / 8, 2);
  });

  test("an absorber's recorded drag is not counted as a loss", () => {
    const loaded = { ...light, kind: 'loaded-roller', coastAbsorberNm: 20, loadCellLagS: 0.05 } as const;
    const run = generatedRun({
      dyno: loaded,
      rateHz: 100,
      coastS: 40,
      speedNoise: 0.005,
      loadCellNoiseNm: 0.5,
      drumTorque: () => 300,
    });
    expect(lossAt(coastDown(run, loaded), 100).value).toBeCloseTo(truth(100), 0);
  });

  test('two drums that differ turn what is beside them between them, once', () => {
    // 8 and 6 kg·m² of drums and 2 of a driveline lose 2.5 rad/s each second: 40 N·m.
    const time = Float64Array.from({ length: 3200 }, (_, row) => row / 100);
    const values = time.map((at) => (at < 2 ? 90 + 5 * at : 100 - 2.5 * (at - 2)));
    const drums = {
      ...light,
      kind: 'hub',
      drumInertiaKgM2: { left: 8, right: 6 },
      parasitic: { aNm: 0, bNmPerRadS: 0, cNmPerRadS2: 0 },
    } as const;
    const torque = time.map(() => 0);
    const found = coastDown(
      {
        time,
        channels: [
          { name: 'hubSpeedLeft', unit: 'rad/s', values },
          { name: 'hubSpeedRight', unit: 'rad/s', values },
          { name: 'absorberTorqueLeft', unit: 'N·m', values: torque },
          { name: 'absorberTorqueRight', unit: 'N·m', values: torque },
        ],
      },
      drums,
      2,
    );
    expect(found.inertiaKgM2).toBeCloseTo(16, 9);
    expect(lossAt(found, 60).value).toBeCloseTo(40, 6);
  });

  test('a recording without a coast is refused in a sentence', () => {
    expect(() => coastDown(coasting(1, { coastS: 0.5 }), light)).toThrow(/No coast was found/);
  });
});
