import { describe, expect, test } from '@jest/globals';
import { preparedSweep } from '../reduction/prepared-sweep.ts';
import { families, healthyRun } from '../testing/families.ts';
import { faultKinds, faultyRuns } from '../testing/faulty-runs.ts';
import { generatedRun } from '../testing/generated-run.ts';
import { motionChecks } from './motion-checks.ts';
import type { GeneratedRun } from '../testing/pull-options.ts';

const findings = (spec: GeneratedRun) => motionChecks(preparedSweep(generatedRun(spec), spec.dyno!, spec.ratio ?? 3.4));

test.each(families)('healthy pulls of %s raise nothing: tyres creep, torque dips, drivers feather', (family) => {
  for (let seed = 901; seed <= 908; seed++) expect(findings(healthyRun(family, seed))).toEqual([]);
});

describe.each(faultKinds.map((kind) => [kind.name, kind] as const))('%s', (_, kind) => {
  test(`raises ${kind.check}, with its place, figure and a sentence`, () => {
    let runs = 0;
    let hits = 0;
    for (const { spec } of faultyRuns(kind, [911, 912, 913])) {
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
