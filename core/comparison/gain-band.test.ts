import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { gridBetween } from '../curve/grid.ts';
import { usualDrift } from './drift.ts';
import { movedT } from '../statistics/moved-t.ts';
import { studentT } from '../statistics/student-t.ts';
import { gainBand } from './gain-band.ts';
import type { RunCurve } from './run-curve.ts';

const level = 80;
/** A run that is `away` from a flat curve everywhere, over a range. */
const flat = (away: number, from = 2000, to = 6000): RunCurve => {
  const engineSpeedRpm = gridBetween(from, to, 25);
  return { engineSpeedRpm, values: engineSpeedRpm.map(() => level + away) };
};
const runs = (...away: number[]) => away.map((value) => flat(value));
const standardDeviation = (values: readonly number[]) => {
  const mean = values.reduce((sum, value) => sum + value, 0) / values.length;
  return Math.sqrt(values.reduce((sum, value) => sum + (value - mean) ** 2, 0) / (values.length - 1));
};
const middle = <T>(values: ArrayLike<T>) => values[values.length >> 1]!;

describe('runs that move as a whole', () => {
  test('have the textbook standard error of a difference of means at every speed', () => {
    const offsets = fc.double({ min: -2, max: 2, noNaN: true });
    fc.assert(
      fc.property(fc.array(offsets, { minLength: 2, maxLength: 5 }), fc.integer({ min: 2, max: 5 }), (away, others) => {
        const baselineAway = Array.from({ length: others }, (_, index) => 0.3 * index - 0.2 * (index % 2));
        const band = gainBand(runs(...away), runs(...baselineAway), [], false)!;
        const [n, m] = [away.length, others];
        const pooled =
          ((n - 1) * standardDeviation(away) ** 2 + (m - 1) * standardDeviation(baselineAway) ** 2) / (n + m - 2);
        // The spread is taken relative to the baseline's power, which is flat here.
        expect(middle(band.standardError)).toBeCloseTo(Math.sqrt(pooled * (1 / n + 1 / m)), 6);
        expect(new Set(Array.from(band.standardError, (value) => value.toFixed(9))).size).toBe(1);
        expect(band.df).toBeGreaterThanOrEqual(n + m - 2);
        // What holds everywhere at once is never narrower than what holds at one speed.
        expect(band.criticalT).toBeGreaterThanOrEqual(band.pointwiseT - 1e-9);
      }),
    );
  });

  test('of further setups lend their scatter, unless they do not cover the range, or each side keeps its own', () => {
    const [test, baseline] = [runs(2, 2.4), runs(0, 0.4)];
    const alone = gainBand(test, baseline, [], false)!;
    const calm = runs(5, 5.05, 5.1, 4.95);
    expect(gainBand(test, baseline, [calm], false)!.standardError[0]!).toBeLessThan(0.7 * alone.standardError[0]!);
    expect(gainBand(test, baseline, [calm], false)!.df).toBeGreaterThan(alone.df);
    const short = [flat(5, 3000, 5000), flat(5.02, 3000, 5000), flat(4.98, 3000, 5000)];
    expect(gainBand(test, baseline, [short], false)!.standardError).toEqual(alone.standardError);
    const own = gainBand(test, baseline, [calm], true)!;
    const each = [standardDeviation([2, 2.4]), standardDeviation([0, 0.4])] as const;
    expect(middle(own.standardError)).toBeCloseTo(Math.sqrt(each[0] ** 2 / 2 + each[1] ** 2 / 2), 6);
  });
});

describe('one run a side', () => {
  test('has no band of its own, and one that rests on a spread known from elsewhere', () => {
    const alone = gainBand(runs(1), runs(0), [], false)!;
    expect([...alone.gain].every((gain) => Math.abs(gain - 1) < 1e-12)).toBe(true);
    expect(alone.standardError.every(Number.isNaN)).toBe(true);
    expect([alone.criticalT, alone.pointwiseT].every(Number.isNaN)).toBe(true);
    const prior = { share: 0.01, df: 12, from: 'learned' as const };
    const known = gainBand(runs(21), runs(20), [], false, { spread: prior })!;
    // At one speed shape scatters beside level: half as much variance again.
    expect(middle(known.standardError)).toBeCloseTo(100.5 * 0.01 * Math.sqrt(1.5) * Math.SQRT2, 2);
    expect(known.df).toBe(12);
  });

  test('rests on what another setup of the job shows as much as on what was known', () => {
    const spread = { share: 0.01, df: 2, from: 'learned' as const };
    const others = [runs(17, 20, 23)];
    const band = gainBand(runs(21), runs(20), others, false, { spread })!;
    const own = gainBand(runs(21), runs(20), others, false)!;
    expect(middle(band.standardError)).toBeLessThan(middle(own.standardError));
    expect(middle(band.standardError)).toBeGreaterThan(0.01 * 100 * Math.SQRT2);
  });
});

test('a remount adds twice its square, and costs freedom where it is badly known', () => {
  const [of, against] = [runs(2, 2.2, 2.4), runs(0, 0.2, 0.4)];
  const plain = gainBand(of, against, [], false)!;
  const remounted = gainBand(of, against, [], false, { remount: { standardDeviation: 0.006, df: 2 } })!;
  expect(middle(remounted.standardError) ** 2).toBeCloseTo(
    middle(plain.standardError) ** 2 + 2 * (0.006 * 81.2) ** 2,
    6,
  );
  expect(remounted.df).toBeLessThan(plain.df);
  expect(gainBand(of, against, [], false, { remount: { standardDeviation: 0, df: 2 } })!.df).toBe(plain.df);
});

test('runs that share no range have no band', () => {
  expect(gainBand([flat(0, 2000, 3000)], [flat(0, 4000, 5000)], [], false)).toBeUndefined();
});

test('the drift that there may be widens the band as it widens the interval of a mean', () => {
  const timed = (away: number, order: number): RunCurve => ({ ...flat(away), atMs: order * 300_000 });
  const test = [timed(2, 4), timed(2.4, 5), timed(2.2, 6)];
  const baseline = [timed(0, 1), timed(0.4, 2), timed(0.2, 3)];
  const drift = { ...usualDrift, perRun: 0.5 };
  const plain = gainBand(test, baseline, [], false)!;
  const drifted = gainBand(test, baseline, [], false, { drift })!;
  const { df } = plain;
  const wider = movedT(0.95, df, 1.5 / Math.sqrt(2 / 3)) / studentT(0.95, df);
  expect(wider).toBeGreaterThan(1.5);
  expect(middle(drifted.standardError) / middle(plain.standardError)).toBeCloseTo(wider, 9);
});
