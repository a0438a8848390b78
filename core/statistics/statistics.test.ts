import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { chance, normal } from '../testing/chance.ts';
import { smallestDetectableChange } from './detectable.ts';
import { holm } from './holm.ts';
import { meanDifference, pooledStandardDeviation, satterthwaite, spreadsDiffer } from './mean-difference.ts';
import { halfWidthOfMean } from './mean-interval.ts';
import { movedProbability, movedT } from './moved-t.ts';
import { remountDeviation } from './remount.ts';
import { simultaneousT, supremumProbability, turning } from './simultaneous.ts';
import { studentT, twoSidedProbability, varianceRatioProbability } from './student-t.ts';

describe('distributions', () => {
  test.each([
    [4, 2.776445],
    [2, 4.302653],
    [1, 12.706205],
    [10, 2.228139],
    [1000, 1.962339],
  ])('t of 95 %% at %d degrees of freedom', (df, t) => {
    expect(studentT(0.95, df)).toBeCloseTo(t, 5);
    expect(twoSidedProbability(t, df)).toBeCloseTo(0.05, 6);
  });

  test.each([
    [19.0, 2, 2, 0.1],
    [6.388, 4, 4, 0.1],
    [9.277, 3, 3, 0.1],
    [1, 5, 5, 1],
  ])('a ratio of variances of %d at %d and %d', (ratio, df, other, p) => {
    expect(varianceRatioProbability(ratio, df, other)).toBeCloseTo(p, 3);
    expect(varianceRatioProbability(1 / ratio, other, df)).toBeCloseTo(p, 3);
  });
});

describe('a t variable with a bias', () => {
  // By numerical integration over the distribution of the spread, in another program.
  test.each([
    [0.95, 1e6, 1.10227, 2.7477],
    [0.95, 4, 1.10227, 4.0448],
    [0.95, 15, 5.511352, 8.6482],
    [0.99, 7, 0.5, 3.8829],
  ])('stays with %d at %d degrees of freedom and a bias of %d within', (level, df, moved, t) => {
    expect(movedT(level, df, moved)).toBeCloseTo(t, 2);
    expect(movedProbability(t, df, moved)).toBeCloseTo(1 - level, 3);
    expect(movedProbability(-t, df, -moved)).toBeCloseTo(1 - level, 3);
  });

  test('is Student’s without one, and never nearer', () => {
    expect(movedT(0.95, 7, 0)).toBe(studentT(0.95, 7));
    fc.assert(
      fc.property(
        fc.double({ min: 0.5, max: 60, noNaN: true }),
        fc.double({ min: 0, max: 30, noNaN: true }),
        (df, moved) => {
          const point = movedT(0.95, df, moved);
          expect(point).toBeGreaterThanOrEqual(studentT(0.95, df) - 1e-9);
          expect(movedProbability(point, df, moved)).toBeCloseTo(0.05, 4);
        },
      ),
      { numRuns: 60 },
    );
  });
});

describe('differences of means', () => {
  test('three against three: the least significant difference is 2.27 spreads, the smallest detectable about 3.0', () => {
    const { halfWidth, standardDeviation, df, leastSignificant, smallestDetectable } = meanDifference(
      [1, 2, 3],
      [5, 6, 7],
    );
    expect(df).toBe(4);
    expect(halfWidth / standardDeviation).toBeCloseTo(2.267, 3);
    expect(leastSignificant).toBeCloseTo(halfWidth, 12);
    expect(smallestDetectable / standardDeviation).toBeCloseTo(3.035, 2);
    expect(smallestDetectableChange(1, { df: 4, told: 4 }, 3, 3)).toBeCloseTo(3.035, 2);
  });

  test('a side with one run borrows the spread of the others, and says so; with none there is no interval', () => {
    expect(meanDifference([3], [1])).toMatchObject({ halfWidth: NaN, from: 'none', pValue: NaN });
    const borrowing = meanDifference([3], [1], {
      alike: [
        [5, 6],
        [7, 7.5],
      ],
    });
    // The others' two degrees of freedom, and two lone sides whose own spread nobody saw: 1 ÷ (1/2 + 2·(1/2)²/6).
    expect(borrowing.df).toBeCloseTo(12 / 7, 9);
    expect(borrowing).toMatchObject({ spread: { df: 2, told: 2 }, from: 'pooled', borrowsSpread: true });
    expect(meanDifference([3], [1], { prior: { standardDeviation: 0.5, df: 8, from: 'learned' } })).toMatchObject({
      df: 8,
      from: 'learned',
      standardDeviation: 0.5,
    });
    expect(pooledStandardDeviation([[1, 3], [10]]).standardDeviation).toBeCloseTo(Math.SQRT2, 10);
  });

  test('spreads that plainly differ are not pooled', () => {
    const [quiet, wild] = [[10, 10.01, 10.02, 9.99], [12, 13, 11, 10]]; // prettier-ignore
    expect(spreadsDiffer(quiet!, wild!)).toBe(true);
    const found = meanDifference(wild!, quiet!);
    expect(found.from).toBe('welch');
    expect(found.df).toBeLessThan(3.5);
    expect(meanDifference([10, 10.5, 11], [12, 12.6, 13.1]).from).toBe('pooled');
    // Setups whose spread is another's lend nothing.
    expect(meanDifference([10, 10.01, 10.02], [11, 11.01, 11.02], { alike: [wild!] }).df).toBe(4);
  });

  test('a remount widens the interval by twice its variance', () => {
    const plain = meanDifference([1, 2, 3], [5, 6, 7]);
    const remounted = meanDifference([1, 2, 3], [5, 6, 7], { remount: { standardDeviation: 2, df: 5 } });
    expect(remounted.standardError ** 2).toBeCloseTo(plain.standardError ** 2 + 8, 9);
    expect(remounted.halfWidth).toBeGreaterThan(plain.halfWidth);
  });

  test('shifting or scaling all values shifts and scales the difference; swapping turns its sign', () => {
    const values = fc.array(
      fc.integer({ min: -1000, max: 1000 }).map((x) => x / 100),
      { minLength: 2, maxLength: 6 },
    );
    fc.assert(
      fc.property(values, values, fc.double({ min: 0.1, max: 9, noNaN: true }), (a, b, factor) => {
        const forward = meanDifference(a, b);
        const scaled = meanDifference(
          a.map((x) => 5 + factor * x),
          b.map((x) => 5 + factor * x),
        );
        const swapped = meanDifference(b, a);
        fc.pre(
          Number.isFinite(forward.halfWidth) &&
            forward.standardDeviation > 1e-3 &&
            meanDifference(a, a).standardDeviation > 1e-3 &&
            meanDifference(b, b).standardDeviation > 1e-3,
        );
        expect(scaled.difference).toBeCloseTo(factor * forward.difference, 6);
        expect(scaled.halfWidth / (factor * forward.halfWidth)).toBeCloseTo(1, 4);
        expect(swapped.difference).toBeCloseTo(-forward.difference, 9);
        expect(swapped.halfWidth).toBeCloseTo(forward.halfWidth, 9);
      }),
    );
  });

  test('degrees of freedom of a sum lie between the least and the sum', () => {
    expect(satterthwaite([1, 4], [1, 4])).toBeCloseTo(8, 9);
    expect(satterthwaite([1, 4], [0, 9])).toBeCloseTo(4, 9);
  });
});

describe('several tests at once', () => {
  test('Holm by hand', () => {
    expect(holm([0.01, 0.04, 0.03, 0.005])).toEqual([true, false, false, true]);
    expect(holm([0.04, NaN])).toEqual([true, false]);
    expect(holm([0.03, 0.03])).toEqual([false, false]);
    expect(holm([])).toEqual([]);
    // Four fifths of the level on the first; once it is called the second has all of it.
    expect(holm([0.039, 0.045], 0.05, [0.8, 0.2])).toEqual([true, true]);
    expect(holm([0.041, 0.045], 0.05, [0.8, 0.2])).toEqual([false, false]);
    expect(holm([0.9, 0.009], 0.05, [0.8, 0.2])).toEqual([false, true]);
  });

  test('calling never gets rarer when a p-value falls', () => {
    const p = fc.double({ min: 0, max: 0.2, noNaN: true });
    fc.assert(
      fc.property(fc.array(p, { minLength: 1, maxLength: 6 }), (values) => {
        const before = holm(values);
        const after = holm([values[0]! / 2, ...values.slice(1)]);
        before.forEach((called, index) => expect(called && !after[index]).toBe(false));
      }),
    );
  });
});

describe('over a whole range', () => {
  test('stiff scatter needs no more than Student’s t, and turning needs more', () => {
    expect(simultaneousT(0.95, 0, 4)).toBeCloseTo(studentT(0.95, 4), 9);
    const values = [1, 4, 9].map((kappa) => simultaneousT(0.95, kappa, 12));
    expect(values[0]!).toBeGreaterThan(studentT(0.95, 12));
    expect(values[1]!).toBeGreaterThan(values[0]!);
    expect(values[2]!).toBeGreaterThan(values[1]!);
    expect(supremumProbability(values[1]!, 4, 12)).toBeCloseTo(0.05, 6);
  });

  test('turning is the angle that the scatter turns by, and nothing when curves move as a whole', () => {
    const places = Float64Array.from({ length: 200 }, (_, index) => (index / 199) * 2);
    expect(turning([places.map(Math.cos), places.map(Math.sin)])).toBeCloseTo(2, 3);
    expect(turning([places.map(() => 1), places.map(() => -0.4)])).toBeCloseTo(0, 9);
  });
});

test('the spread of mountings is found in repeats, and 0 where runs explain it', () => {
  const noise = normal(chance(3));
  const setups = Array.from({ length: 60 }, () => {
    const level = 100;
    return [0, 1, 2].map(() => {
      const mounting = level + 0.8 * noise();
      return [0, 1, 2].map(() => mounting + 0.4 * noise());
    });
  });
  expect(remountDeviation(setups)!.standardDeviation).toBeCloseTo(0.8, 1);
  // 120 of the mountings, less what taking off the runs' own scatter makes them less sure.
  expect(remountDeviation(setups)!.df).toBeGreaterThan(90);
  expect(remountDeviation(setups)!.df).toBeLessThan(120);
  expect(remountDeviation([[[1, 2, 3]]])).toBeUndefined();
  expect(
    remountDeviation([
      [
        [1, 2, 3],
        [1.1, 2.1, 2.9],
      ],
    ])!.standardDeviation,
  ).toBe(0);
});

test('the spread of mountings is what their means scatter beyond the runs within, each setup with its own freedom', () => {
  // Two setups: means 10, 12, 14 and 20, 22, of two runs each that lie 1 to each side of them (variance 2).
  const around = (mean: number) => [mean - 1, mean + 1];
  const found = remountDeviation([
    [around(10), around(12), around(14)],
    [around(20), around(22)],
  ])!;
  // Scatter 8 + 2 over three degrees, less 3/7 of the runs' 2 ÷ 2.
  const [scattered, takenOff] = [10 / 3, 3 / 7];
  expect(found.standardDeviation ** 2).toBeCloseTo(scattered - takenOff, 9);
  expect(found.df).toBeCloseTo((scattered - takenOff) ** 2 / (scattered ** 2 / 3 + takenOff ** 2 / 5), 9);
  expect(remountDeviation([[[10], [12]]])).toEqual({ standardDeviation: Math.SQRT2, df: 1 });
  // Runs within that scatter more than the mountings leave them nothing; one that was never run counts for none.
  expect(remountDeviation([[[0, 20], [9, 11], []]])).toEqual({ standardDeviation: 0, df: 1 });
  expect(remountDeviation([[[10, 11]], [[10], []]])).toBeUndefined();
});

describe('whose spread is believed', () => {
  const prior = (over: object = {}) => ({ standardDeviation: 1, df: 10, from: 'learned' as const, ...over });
  /** Two sides of three with a spread of so much each: four degrees of freedom. */
  const sides = (spread: number) =>
    [
      [-spread, 0, spread],
      [9 - spread, 9, 9 + spread],
    ] as const;
  const of = (spread: number, over: object = {}) => meanDifference(...sides(spread), { prior: prior(over) });

  test('what was learned and what is seen go together by their degrees of freedom', () => {
    const both = of(1.5);
    expect(both.df).toBe(14);
    expect(both.standardDeviation ** 2).toBeCloseTo((10 * 1 + 4 * 2.25) / 14, 9);
    expect(both.from).toBe('learned');
  });

  test('runs that scatter far more than was learned are believed alone; those that scatter less are not', () => {
    // A ratio of variances of 25 at 4 and 10 has a chance far below one in a hundred; of 1/25 it does not count.
    expect(of(5).df).toBe(4);
    expect(of(5).standardDeviation).toBeCloseTo(5, 9);
    expect(of(0.2).df).toBe(14);
    // An assumed spread gives way by its few degrees alone.
    expect(of(5, { from: 'assumed', df: 4 }).df).toBe(8);
    expect(meanDifference([1], [2], { prior: prior() })).toMatchObject({ df: 10, standardDeviation: 1 });
    expect(meanDifference([1, 1, 1], [2, 2, 2], { prior: prior() }).df).toBe(14);
  });

  test('spreads differ from four runs a side on, by one chance in twenty, and never where one has none', () => {
    const four = (spread: number) => [-spread, -spread / 3, spread / 3, spread];
    // The ratio of variances that a chance of 5 % on both sides allows at 3 and 3 is 15.44.
    const root = Math.sqrt(15.44);
    expect(spreadsDiffer(four(1.01 * root), four(1))).toBe(true);
    expect(spreadsDiffer(four(0.99 * root), four(1))).toBe(false);
    expect(spreadsDiffer(four(1), four(1.01 * root))).toBe(true);
    expect(spreadsDiffer([-9, 0, 9], four(0.1))).toBe(false);
    expect(spreadsDiffer([5, 5, 5, 5], four(1))).toBe(false);
    expect(spreadsDiffer(four(1), [5, 5, 5, 5])).toBe(false);
  });
});

test('a run that stands alone is no surer than the job’s other repeats show', () => {
  const prior = { share: 0.002, df: 30, from: 'learned' as const };
  const alone = { runs: 1, mean: 100, standardDeviation: NaN };
  const [plain, noisy] = [
    halfWidthOfMean(alone, prior)!,
    halfWidthOfMean(alone, prior, { standardDeviation: 0.012, df: 7 })!,
  ];
  expect(noisy).toBeGreaterThan(2 * plain);
  const eight = halfWidthOfMean({ runs: 8, mean: 100, standardDeviation: 1.2 }, prior)!;
  expect(eight).toBeLessThan(noisy);
  expect(halfWidthOfMean(alone, undefined)).toBeUndefined();
  // Two degrees of freedom of the others, and a spread of its own that nobody saw: 1 ÷ (1/2 + 1/6).
  expect(halfWidthOfMean(alone, undefined, { standardDeviation: 0.01, df: 2 })).toBeCloseTo(6.0, 1);
});
