import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { RunCurve } from './run-curve.ts';
import { levelOf, mayClaim, paidFor, ruleFor, shareOfLook } from './judging-rule.ts';

const run = (minute?: number): RunCurve => ({
  engineSpeedRpm: Float64Array.of(2000, 3000),
  values: Float64Array.of(1, 2),
  ...(minute === undefined ? {} : { atMs: minute * 60_000 }),
});
const at = (...minutes: number[]) => minutes.map(run);
const three = { runs: 3 };

describe('which rule holds', () => {
  test('without a plan, each run since both sides had one is a look', () => {
    expect(ruleFor(at(30), at(0, 10, 20), {})).toEqual({ kind: 'every-look', look: 1 });
    expect(ruleFor(at(30, 40, 60), at(0, 10, 20, 50), {})).toEqual({ kind: 'every-look', look: 4 });
    expect(ruleFor([run(), run()], [run(), run()], {})).toEqual({ kind: 'every-look', look: 3 });
  });

  test('a plan waits for its runs, says which are missing, and remembers what there was when it was full', () => {
    const open = ruleFor(at(30), at(0, 10), { test: three });
    expect(open).toMatchObject({ kind: 'planned', missing: { test: 2, baseline: 1 }, further: 0 });
    expect(mayClaim(open)).toBe(false);
    const full = ruleFor(at(30, 40, 50), at(0, 10, 20), { test: three });
    expect(full).toMatchObject({ kind: 'planned', missing: { test: 0, baseline: 0 }, further: 0 });
    const beyond = ruleFor(at(30, 40, 50, 70), at(0, 10, 20, 60), { test: three });
    expect(beyond).toMatchObject({ kind: 'planned', further: 2 });
    expect(beyond.kind === 'planned' && beyond.atCompletion!.test).toHaveLength(3);
  });

  test('a setup’s own plan of one run stands against a baseline of three', () => {
    const rule = ruleFor(at(30), at(0, 10, 20), { test: { runs: 1 }, baseline: three });
    expect(rule).toMatchObject({ kind: 'planned', missing: { test: 0, baseline: 0 }, further: 0 });
  });

  test('a plan that was stated after the first run of the setup is none', () => {
    const late = { runs: 3, statedAtMs: 35 * 60_000 };
    expect(ruleFor(at(30, 40, 50), at(0, 10, 20), { test: late }).kind).toBe('every-look');
    expect(ruleFor(at(40, 50, 60), at(0, 10, 20), { test: late }).kind).toBe('planned');
  });
});

describe('what looks cost', () => {
  test('all looks there can ever be share the chance of one', () => {
    let sum = 0;
    for (let look = 1; look <= 2000; look++) sum += shareOfLook(look);
    expect(sum).toBeLessThan(1);
    expect(sum).toBeGreaterThan(0.99);
  });

  test('a claim never becomes cheaper by a look more, and intervals no narrower', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 60 }), fc.double({ min: 1e-9, max: 1, noNaN: true }), (look, p) => {
        const rule = (at: number) => ({ kind: 'every-look' as const, look: at });
        expect(paidFor(rule(look + 1), p)).toBeGreaterThan(paidFor(rule(look), p));
        expect(levelOf(rule(look + 1))).toBeGreaterThan(levelOf(rule(look)));
      }),
    );
  });
});
