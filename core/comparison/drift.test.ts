import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { chance, normal } from '../testing/chance.ts';
import { apartInOrder, driftOf, survivesDrift, usualDrift, type OrderedValue } from './drift.ts';

/** Runs of a setup at places in the session: a level, a steady drift, and some scatter. */
const runsAt = (
  orders: readonly number[],
  level: number,
  perRun: number,
  scatter: readonly number[] = [],
): OrderedValue[] => orders.map((order, index) => ({ order, value: level + perRun * order + (scatter[index] ?? 0) }));

const small = fc.double({ min: -5, max: 5, noNaN: true });

describe('drift from run to run', () => {
  test('a steady drift is taken out whole, whatever the change', () => {
    fc.assert(
      fc.property(small, small, (perRun, change) => {
        const drift = driftOf(runsAt([3, 4, 5], 100 + change, perRun), runsAt([0, 1, 2], 100, perRun))!;
        expect(drift.perRun).toBeCloseTo(perRun, 6);
        expect(drift.adjusted).toBeCloseTo(change, 6);
      }),
    );
  });

  test('exchanged sides turn the change and leave the drift', () => {
    const scatter = fc.array(fc.double({ min: -1, max: 1, noNaN: true }), { minLength: 6, maxLength: 6 });
    fc.assert(
      fc.property(small, small, scatter, (perRun, change, noise) => {
        const [a, b] = [runsAt([0, 2, 4], 100, perRun, noise), runsAt([1, 3, 5], 100 + change, perRun, noise.slice(3))];
        const [there, back] = [driftOf(b, a)!, driftOf(a, b)!];
        expect(back.perRun).toBeCloseTo(there.perRun, 8);
        expect(back.adjusted).toBeCloseTo(-there.adjusted, 7);
        expect(back.adjustedHalfWidth).toBeCloseTo(there.adjustedHalfWidth, 5);
      }),
    );
  });

  test('A A A B B B cannot tell drift from change; in turn, or with a return to A, it can', () => {
    const noise = [0.1, -0.2, 0.15, -0.05, 0.2, -0.1];
    expect(driftOf(runsAt([3, 4, 5], 101, 0, noise), runsAt([0, 1, 2], 100, 0, noise))!.separable).toBe(false);
    expect(driftOf(runsAt([1, 3, 5], 101, 0, noise), runsAt([0, 2, 4], 100, 0, noise))!.separable).toBe(true);
    expect(driftOf(runsAt([3, 4, 5], 101, 0, noise), runsAt([0, 1, 2, 6, 7], 100, 0, noise))!.separable).toBe(true);
  });

  test('a return under a letter of its own tells as much as one that is counted', () => {
    const noise = [0.1, -0.2, 0.15, -0.05, 0.2, -0.1, 0.12];
    const [test, baseline] = [runsAt([3, 4, 5], 101, 0.3, noise), runsAt([0, 1, 2], 100, 0.3, noise.slice(3))];
    const back = runsAt([6], 100, 0.3, [0.05]);
    const alone = driftOf(test, baseline, [], { test: [], baseline: back })!;
    const counted = driftOf(test, [...baseline, ...back])!;
    expect(alone.perRun).toBe(counted.perRun);
    expect(alone.separable).toBe(true);
    expect(driftOf(test, baseline, [back])!.separable).toBe(false);
    // Both take the same drift out; the mean of the baseline is that of its own three runs alone.
    expect(Math.abs(alone.adjusted - counted.adjusted)).toBeLessThan(alone.adjustedHalfWidth / 2);
  });

  test('a return’s interval holds as often as it says', () => {
    const noise = normal(chance(11));
    let held = 0;
    const days = 4000;
    for (let day = 0; day < days; day++) {
      const scatter = (count: number) => Array.from({ length: count }, noise);
      const drift = driftOf(runsAt([3, 4, 5], 100, 0.5, scatter(3)), runsAt([0, 1, 2], 100, 0.5, scatter(3)), [], {
        test: [],
        baseline: runsAt([6], 100, 0.5, scatter(1)),
      })!;
      if (Math.abs(drift.adjusted) <= drift.adjustedHalfWidth) held++;
    }
    expect(held / days).toBeGreaterThan(0.94);
    expect(held / days).toBeLessThan(0.96);
  });

  test('with too few runs nothing is said', () => {
    expect(driftOf(runsAt([1], 1, 0), runsAt([0], 0, 0))).toBeUndefined();
    expect(driftOf([], runsAt([0, 1], 0, 0))).toBeUndefined();
  });

  test('a claim that is only drift does not survive; one that stands beside it does', () => {
    const drifting = driftOf(runsAt([3, 4, 5], 100, 1), runsAt([0, 1, 2], 100, 1))!;
    const survives = (drift: typeof drifting, plain: number) => survivesDrift(drift, plain, 0.1, 2 / 3, usualDrift);
    expect(survives(drifting, 3)).toBe(false);
    const changed = driftOf(runsAt([3, 4, 5], 104, 0.1), runsAt([0, 1, 2], 100, 0.1))!;
    expect(survives(changed, 4.3)).toBe(true);
  });

  test('how far apart the sides lie follows from the times; without them the worst is taken', () => {
    const at = (...minutes: number[]) => minutes.map((minute) => ({ atMs: minute * 60_000 }));
    expect(apartInOrder(at(30, 40, 50), at(0, 10, 20))).toBe(3);
    expect(apartInOrder(at(10, 30, 50), at(0, 20, 40))).toBe(1);
    expect(apartInOrder([{}, {}], [{}])).toBe(1.5);
  });
});
