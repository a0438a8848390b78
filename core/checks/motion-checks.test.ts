import { describe, expect, test } from '@jest/globals';
import type { DrumPlace } from '../dyno/dyno-profile.ts';
import { preparedSweep } from '../reduction/prepared-sweep.ts';
import { allFamilies, healthyRun } from '../testing/families.ts';
import { faultKinds, faultyRuns } from '../testing/faulty-runs.ts';
import { generatedRun } from '../testing/generated-run.ts';
import { motionChecks } from './motion-checks.ts';
import type { GeneratedRun } from '../testing/pull-options.ts';
import { shortOrWhole } from '../testing/short-or-whole.ts';

const findings = (spec: GeneratedRun) => motionChecks(preparedSweep(generatedRun(spec), spec.dyno!, spec.ratio ?? 3.4));

test.each(allFamilies)('healthy pulls of %s raise nothing: tyres creep, torque dips, drivers feather', (family) => {
  for (let seed = 901; seed <= shortOrWhole(902, 906); seed++) expect(findings(healthyRun(family, seed))).toEqual([]);
});

describe.each(faultKinds.map((kind) => [kind.name, kind] as const))('%s', (_, kind) => {
  test(`raises ${kind.check}, with its place, figure and a sentence`, () => {
    let runs = 0;
    let hits = 0;
    for (const { spec } of faultyRuns(kind, shortOrWhole([913], [911, 912, 913]))) {
      runs++;
      const found = findings(spec).find(({ id }) => id === kind.check);
      if (!found) continue;
      hits++;
      expect(found.message).toMatch(/^[A-Z].*\.$/);
      expect(found.message).not.toMatch(/NaN|undefined|Infinity/);
      expect(Number.isFinite(found.figure)).toBe(true);
      expect(found.unit).toBeTruthy();
      if (found.fromRpm !== undefined) expect(found.toRpm!).toBeGreaterThanOrEqual(found.fromRpm);
    }
    expect(hits / runs).toBeGreaterThan(0.8);
  });
});

test('a diesel halved near 3,300 rpm on a loaded roller at 220 rpm/s is in limp mode, and on no limiter', () => {
  for (const [seed, share] of [
    [921, 0.5],
    [922, 0.5],
    [923, 0.75],
  ] as const) {
    const spec = {
      ...healthyRun('diesel-loaded', seed),
      rampRpmPerS: 220,
      faults: { limp: { fromRpm: 3280, overRpm: 200, share } },
    };
    const found = findings(spec);
    expect(found.map(({ id }) => id)).toEqual(['limp']);
    const [limp] = found;
    expect(Math.abs(limp!.fromRpm! - 3280)).toBeLessThan(60);
    expect(Math.abs(limp!.toRpm! - 3480)).toBeLessThan(60);
    expect(Math.abs(limp!.figure! - 100 * share)).toBeLessThan(6);
    expect(limp!.message).toMatch(/^Torque falls to \d+ % between 3,\d+ and 3,\d+ rpm and stays there/);
  }
});

test('every zone of slip is named, and a zone that hops is not told twice', () => {
  const plain = { ...healthyRun('petrol-inertia', 4), stab: undefined, feather: undefined };
  const twice = (first: number, second: number) => ({
    fromRpm: first,
    toRpm: first + 500,
    share: 0.05,
    again: { fromRpm: second, toRpm: second + 450, share: 0.07 },
  });
  const [slip] = findings({ ...plain, faults: { tyreSlip: twice(2900, 4700) } });
  expect(slip).toMatchObject({ id: 'tyre-slip' });
  expect(slip!.zones).toHaveLength(2);
  expect(slip!.message).toMatch(/from 2,9\d0 to 3,\d+ rpm and by up to \d\.\d % from 4,[78]\d0 to 5,\d+ rpm/);
  expect(slip!.fromRpm).toBe(slip!.zones![1]!.fromRpm);
  const mixed = findings({
    ...plain,
    faults: {
      tyreSlip: { fromRpm: 2800, toRpm: 3300, share: 0.05 },
      hop: { fromRpm: 4600, toRpm: 5600, share: 0.05, hz: 6 },
    },
  });
  expect(mixed.map(({ id }) => id).sort()).toEqual(['hop', 'tyre-slip']);
  expect(mixed.find(({ id }) => id === 'tyre-slip')!.zones).toHaveLength(1);
});

test('without a pickup nothing is said of slip', () => {
  const spec = { ...healthyRun('petrol-inertia', 3), pickup: false, faults: { clutchSlip: { share: 0.08 } } };
  expect(findings(spec).map(({ id }) => id)).not.toContain('driveline-slip');
});

test('a stepped clock is taken back: the rest of the pull stays in the curve', () => {
  const plain = { ...healthyRun('petrol-inertia', 4), stab: undefined, feather: undefined };
  const straight = preparedSweep(generatedRun(plain), plain.dyno!);
  const jumped = preparedSweep(generatedRun({ ...plain, clockJump: { atS: 5, byS: 0.7 } }), plain.dyno!);
  expect(jumped.endRpm).toBeCloseTo(straight.endRpm, -1.5);
  expect(jumped.sweep.endS - jumped.sweep.startS).toBeCloseTo(straight.sweep.endS - straight.sweep.startS, 0);
});

describe('slip between axles', () => {
  const apart = (drums: readonly { place: DrumPlace; torqueShare: number; speedFactor: number }[]) => drums;
  const axles = apart([
    { place: 'front', torqueShare: 0.4, speedFactor: 1.02 },
    { place: 'rear', torqueShare: 0.6, speedFactor: 0.98 },
  ]);
  const hubs = apart(
    (['frontLeft', 'frontRight', 'rearLeft', 'rearRight'] as const).map((place) => ({
      place,
      torqueShare: 0.25,
      speedFactor: 1,
    })),
  );
  const each = (spec: GeneratedRun, count: number): GeneratedRun => ({
    ...spec,
    dyno: { ...spec.dyno!, inertiaKgM2: spec.dyno!.inertiaKgM2 / count },
  });
  const found = (spec: GeneratedRun, drums: typeof axles, axleSlip?: GeneratedRun['axleSlip']) => {
    const run = generatedRun({ ...spec, drums, ...(axleSlip && { axleSlip }) });
    return motionChecks(preparedSweep(run, each(spec, drums.length).dyno!, spec.ratio ?? 3.4));
  };

  test('is not seen on healthy pulls', () => {
    for (let seed = 931; seed <= shortOrWhole(932, 938); seed++) {
      expect(found(healthyRun('turbo-loaded', seed), axles).map(({ id }) => id)).not.toContain('axle-slip');
      expect(found(healthyRun('diesel-hub', seed), hubs).map(({ id }) => id)).not.toContain('axle-slip');
    }
  });

  test.each(['front', 'rear'] as const)(
    'names the %s axle where its drums fall behind, with place and share',
    (axle) => {
      let hits = 0;
      for (let seed = 941; seed <= shortOrWhole(943, 946); seed++) {
        const slip = { axle, fromRpm: 3600, toRpm: 4600, share: 0.05 };
        const finding = found(healthyRun('turbo-loaded', seed), axles, slip).find(({ id }) => id === 'axle-slip');
        if (!finding) continue;
        hits++;
        expect(finding.message).toContain(`The ${axle} drums fall up to`);
        expect(finding.severity).toBe('stop');
        expect(finding.figure).toBeGreaterThan(2.5);
        expect(finding.fromRpm).toBeGreaterThan(3300);
        expect(finding.toRpm).toBeLessThan(4900);
      }
      expect(hits).toBeGreaterThanOrEqual(shortOrWhole(2, 5));
    },
  );

  test('on hubs it is the coupling', () => {
    const [fault] = found(healthyRun('diesel-hub', 951), hubs, {
      axle: 'rear',
      fromRpm: 2200,
      toRpm: 3000,
      share: 0.04,
    }).filter(({ id }) => id === 'axle-slip');
    expect(fault).toMatchObject({
      severity: 'mind',
      message: expect.stringContaining('coupling to the rear axle') as unknown,
    });
  });
});
