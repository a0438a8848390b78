import { describe, expect, test } from '@jest/globals';
import type { DrumPlace, DynoProfile } from '../dyno/dyno-profile.ts';
import { drumsIn, groupingsOf, groupOf } from '../dyno/drums.ts';
import { curveOf } from '../figures/runs/corrected-curve.ts';
import type { Recording } from '../recording/recording.ts';
import { generatedRun } from '../testing/generated-run.ts';
import { healthyRun } from '../testing/families.ts';
import { coastDown } from '../run-kinds/coast-down.ts';
import { preparedSweep } from './prepared-sweep.ts';
import { liveDrums, LivePower } from './live-power.ts';

const view = { standard: 'none', share: 1, gridRpm: 25, spanRpm: 240 } as const;
const ratio = 4;
const drumTorque = (rpm: number) => 500 + 0.03 * rpm;

interface Part {
  place: DrumPlace;
  /** Of the torque at the mean speed. */
  share: number;
  /** Its speed ÷ the mean of all. */
  factor: number;
}

/**
 * A pull in closed form: every drum gains speed evenly, its torque is a share
 * of one curve, and its load cell reads what is left after inertia and losses.
 */
function pulled(dyno: DynoProfile, parts: readonly Part[]): { recording: Recording; kwAt: (rpm: number) => number } {
  const hz = 200;
  const [from, to, perS] = [2000, 6000, 400];
  const seconds = 1.5 + (to - from) / perS;
  const time = Float64Array.from({ length: seconds * hz }, (_, index) => index / hz);
  const rpmAt = (at: number) => (at < 1.5 ? from : from + perS * (at - 1.5));
  const radS = (rpm: number) => (rpm * 2 * Math.PI) / 60 / ratio;
  const kind = dyno.kind === 'hub' ? 'hub' : 'roller';
  const channels = parts.flatMap(({ place, share, factor }) => {
    const suffix = place.charAt(0).toUpperCase() + place.slice(1);
    const inertia = dyno.drumInertiaKgM2?.[place] ?? dyno.inertiaKgM2;
    const load = (at: number) => {
      const speed = radS(rpmAt(at)) * factor;
      const { aNm, bNmPerRadS, cNmPerRadS2 } = dyno.parasitic;
      const loss = aNm + bNmPerRadS * speed + cNmPerRadS2 * speed ** 2;
      if (at < 1.5) return 0;
      return share * drumTorque(rpmAt(at)) - inertia * radS(perS) * factor - loss;
    };
    return [
      { name: `${kind}Speed${suffix}`, unit: 'rad/s', values: time.map((at) => radS(rpmAt(at)) * factor) },
      { name: `absorberTorque${suffix}`, unit: 'N·m', values: time.map(load) },
    ];
  });
  const engine = { name: 'engineSpeed', unit: 'rpm', values: time.map(rpmAt) };
  const factors = parts.reduce((sum, { share, factor }) => sum + share * factor, 0);
  return {
    recording: { time, channels: [...channels, engine] },
    kwAt: (rpm) => (drumTorque(rpm) * radS(rpm) * factors) / 1000,
  };
}

const losses = { aNm: 2, bNmPerRadS: 0.03, cNmPerRadS2: 0.0003 };
const hubs: DynoProfile = { kind: 'hub', inertiaKgM2: 1.4, parasitic: losses };
const rollers: DynoProfile = { kind: 'loaded-roller', inertiaKgM2: 5, radiusM: 0.16, parasitic: losses };
const four: readonly Part[] = [
  { place: 'frontLeft', share: 0.22, factor: 1.01 },
  { place: 'frontRight', share: 0.18, factor: 0.99 },
  { place: 'rearLeft', share: 0.31, factor: 1.02 },
  { place: 'rearRight', share: 0.29, factor: 0.98 },
];
const axles: readonly Part[] = [
  { place: 'front', share: 0.4, factor: 1.05 },
  { place: 'rear', share: 0.6, factor: 0.95 },
];

describe.each([
  ['four hubs', hubs, four],
  ['four hubs of unlike inertia', { ...hubs, drumInertiaKgM2: { rearLeft: 3, frontRight: 0.8 } }, four],
  ['two axles with drums of their own ratio', rollers, axles],
] as const)('%s', (_, dyno, parts) => {
  const { recording, kwAt } = pulled(dyno, parts);
  const curve = curveOf(preparedSweep(recording, dyno, ratio), undefined, view);

  test('power is the sum of torque times own speed, to 0.05 %', () => {
    for (const [index, rpm] of curve.engineSpeedRpm.entries())
      if (rpm > 2300 && rpm < 5800) expect(curve.uncorrectedPowerKw[index]! / kwAt(rpm)).toBeCloseTo(1, 3.3);
  });

  test('each drum is told apart, and they add up', () => {
    const at = curve.engineSpeedRpm.indexOf(4000);
    const factors = parts.reduce((sum, { share, factor }) => sum + share * factor, 0);
    expect(curve.drums!.map(({ place }) => place)).toEqual(parts.map(({ place }) => place));
    curve.drums!.forEach(({ powerKw }, which) => {
      const { share, factor } = parts[which]!;
      expect(powerKw[at]! / curve.powerKw[at]!).toBeCloseTo((share * factor) / factors, 3);
    });
    expect(curve.drums!.reduce((sum, { powerKw }) => sum + powerKw[at]!, 0)).toBeCloseTo(curve.powerKw[at]!, 9);
  });

  test('the live curve shows the same power', () => {
    const names = ['time', ...recording.channels.map(({ name }) => name)];
    const drums = liveDrums(names, dyno)!;
    const live = new LivePower(dyno, drums);
    const row = (index: number) => [recording.time[index]!, ...recording.channels.map(({ values }) => values[index]!)];
    let seen = 0;
    for (let index = 0; index < recording.time.length; index++) {
      const values = row(index);
      const point = live.push(
        values[0]!,
        values.at(-1)!,
        drums.map(({ speedAt, torqueAt }) => ({ speed: values[speedAt]!, absorber: values[torqueAt]! })),
      );
      if (!point || point.rpm < 2400) continue;
      seen++;
      expect(point.powerKw / kwAt(point.rpm)).toBeCloseTo(1, 2);
    }
    expect(seen).toBeGreaterThan(500);
  });
});

test('a car that drives one axle only: the other stands, and power is the driven one’s', () => {
  const { recording, kwAt } = pulled(rollers, [
    { place: 'front', share: 0, factor: 0 },
    { place: 'rear', share: 1, factor: 1 },
  ]);
  const standing = recording.channels.map((channel) =>
    channel.name === 'absorberTorqueFront' ? { ...channel, values: channel.values.map(() => 0) } : channel,
  );
  const curve = curveOf(preparedSweep({ ...recording, channels: standing }, rollers, ratio), undefined, view);
  const at = curve.engineSpeedRpm.indexOf(4000);
  expect(curve.uncorrectedPowerKw[at]! / kwAt(4000)).toBeCloseTo(1, 3);
  expect(curve.drums![0]!.powerKw[at]! / curve.powerKw[at]!).toBeCloseTo(0, 3);
  expect(curve.checks.map(({ id }) => id)).not.toContain('axle-slip');
});

test('inertia rollers on two axles need no load cells', () => {
  const spec = {
    ...healthyRun('petrol-inertia', 5),
    drums: [
      { place: 'front', torqueShare: 0.5, speedFactor: 1 },
      { place: 'rear', torqueShare: 0.5, speedFactor: 1 },
    ] as const,
  };
  const each = {
    ...spec.dyno!,
    inertiaKgM2: spec.dyno!.inertiaKgM2 / 2,
    parasitic: { aNm: 0, bNmPerRadS: 0, cNmPerRadS2: 0 },
  };
  const whole = { ...spec.dyno!, parasitic: each.parasitic };
  const apart = curveOf(preparedSweep(generatedRun({ ...spec, dyno: whole, speedNoise: 0 }), each), undefined, view);
  const one = curveOf(
    preparedSweep(generatedRun({ ...spec, drums: undefined, dyno: whole, speedNoise: 0 } as never), whole),
    undefined,
    view,
  );
  expect(apart.peakPower.value / one.peakPower.value).toBeCloseTo(1, 3);
});

test('what turns with several drums is counted once in a coast-down', () => {
  const time = Float64Array.from({ length: 4000 }, (_, index) => index / 200);
  const inertia = 5;
  const speed = time.map((at) => (at < 2 ? 60 + 20 * at : 100 - 4 * (at - 2)));
  const channels = ['Front', 'Rear'].flatMap((axle) => [{ name: `rollerSpeed${axle}`, unit: 'rad/s', values: speed }]);
  const kind = { ...rollers, kind: 'inertia-roller' as const, inertiaKgM2: inertia };
  const found = coastDown({ time, channels }, kind, 2);
  expect(found.inertiaKgM2).toBe(12);
  expect(found.aNm.value + found.bNmPerRadS.value * 80 + found.cNmPerRadS2.value * 6400).toBeCloseTo(12 * 4, 1);
});

describe('drums by their channels', () => {
  test('a set that is not whole is named with what is missing; one drum is no set', () => {
    expect(drumsIn(['rollerSpeed', 'absorberTorque'], 'loaded-roller')).toBeUndefined();
    expect(() => drumsIn(['rollerSpeedFront', 'absorberTorqueFront'], 'loaded-roller')).toThrow(
      /two axles needs .*; rollerSpeedRear and absorberTorqueRear are not there/,
    );
    expect(() => drumsIn(['hubSpeedFrontLeft'], 'hub')).toThrow(/four hubs needs .*hubSpeedRearRight/);
    expect(drumsIn(['rollerSpeedFront', 'rollerSpeedRear'], 'inertia-roller')).toHaveLength(2);
    // Hubs are not looked for on rollers.
    expect(drumsIn(['hubSpeedLeft', 'rollerSpeed'], 'inertia-roller')).toBeUndefined();
  });

  test('are grouped by wheel, axle and side, as far as they can be', () => {
    expect(groupingsOf(['frontLeft', 'frontRight', 'rearLeft', 'rearRight'])).toEqual(['wheel', 'axle', 'side']);
    expect(groupingsOf(['left', 'right'])).toEqual(['side']);
    expect(groupingsOf(['front', 'rear'])).toEqual(['axle']);
    expect(['frontLeft', 'rearLeft'].map((place) => groupOf(place as DrumPlace, 'side'))).toEqual(['left', 'left']);
  });
});
