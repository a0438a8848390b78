import { describe, expect, test } from '@jest/globals';
import { driveOf } from '../reduction/drive.ts';
import { sweepDrive } from '../reduction/sweep-drive.ts';
import { findSweep } from '../reduction/sweep.ts';
import { generatedRun } from '../testing/generated-run.ts';
import { otherEngine, otherEngines } from '../testing/other-engines.ts';
import type { GeneratedRun } from '../testing/pull-options.ts';
import { motionChecks } from './motion-checks.ts';

function swept(spec: GeneratedRun) {
  const drive = driveOf(generatedRun(spec), spec.dyno!, spec.ratio);
  return sweepDrive(drive, spec.dyno!, findSweep(drive));
}
const found = (spec: GeneratedRun) => motionChecks(swept(spec)).map(({ id }) => id);
const seeds = [1, 2, 3, 4, 5];

describe('healthy engines of other kinds', () => {
  // The bench draws 1,500 of them.
  test.each(otherEngines)('%s: no limp mode, and no other finding of the curve', (kind) => {
    for (const seed of seeds) {
      const ids = found(otherEngine(kind, seed));
      expect([seed, ids]).not.toEqual([seed, expect.arrayContaining(['limp'])]);
      for (const id of ['fuel-cut', 'limiter', 'tyre-slip', 'cut-run']) expect(ids).not.toContain(id);
    }
  });

  test.each(['tuned diesel', 'electric', 'constant power'] as const)('%s: a limp mode is found in it', (kind) => {
    for (const seed of seeds) {
      const spec = {
        ...otherEngine(kind, seed, 60),
        faults: { limp: { fromRpm: 2500, overRpm: 60 + 20 * seed, share: 0.5 } },
      };
      expect([seed, found(spec)]).toEqual([seed, expect.arrayContaining(['limp'])]);
    }
  });
});

describe('a slow pull', () => {
  test.each(['electric', 'constant power', 'governed diesel', 'pink load cell'] as const)(
    '%s at 25 rpm/s is found whole, though the absorber wanders',
    (kind) => {
      const drawn = otherEngine(kind, 5);
      const least = (drawn.toRpm! - drawn.fromRpm!) / 180;
      const { startRpm, endRpm } = swept({ ...drawn, rampRpmPerS: Math.max(25, least), rateHz: 50 });
      expect(startRpm).toBeLessThan(drawn.fromRpm! + 80);
      expect(endRpm).toBeGreaterThan(drawn.toRpm! - 60);
    },
  );
});

test('figures of a part of the rise say of which part, and no recording is called cut that goes on', () => {
  const spec = otherEngine('tuned diesel', 4);
  const run = swept(spec);
  const [part] = motionChecks(run).filter(({ id }) => id === 'part-of-the-rise');
  // Less than a third of its torque is left from there on.
  expect(run.endRpm).toBeLessThan(spec.toRpm! - 500);
  expect(part).toMatchObject({ severity: 'mind', unit: '%' });
  expect(Math.abs(part!.toRpm! - spec.toRpm!)).toBeLessThan(40);
  expect(part!.message).toMatch(/^The figures cover 1,\d+ to 3,\d+ rpm, but engine speed rose from 1,\d+ to 4,\d+ rpm/);
  expect(found(spec)).not.toContain('cut-run');
});
