import { describe, expect, test } from '@jest/globals';
import { chance, normal } from '../testing/chance.ts';
import { scatterOf } from '../numerics/mean.ts';
import { meanDifference } from './mean-difference.ts';
import { assumedSpread, learnedSpread, type Repeats } from './spread-prior.ts';

/** Repeats of drawn jobs, whose true spreads scatter by a share about 0.4 %. */
function history(jobs: number, scatter: number, seed: number, runs = 3): Repeats[] {
  const noise = normal(chance(seed));
  return Array.from({ length: jobs }, () => {
    const spread = 0.004 * Math.exp(scatter * noise());
    const values = Array.from({ length: runs }, () => spread * noise());
    return { runs, share: Math.sqrt(scatterOf(values) / (runs - 1)) };
  });
}

describe('the spread that is learned from earlier repeats', () => {
  test('comes back from drawn jobs, and is worth less the more the jobs differ', () => {
    const alike = learnedSpread(history(400, 0, 3))!;
    expect(alike.share).toBeGreaterThan(0.0038);
    expect(alike.share).toBeLessThan(0.0042);
    const different = learnedSpread(history(400, 0.5, 3))!;
    // The variance's logarithm scatters by 1 = trigamma(ν/2) at ν = 2.85.
    expect(different.df).toBeGreaterThan(2);
    expect(different.df).toBeLessThan(4.5);
    expect(alike.df).toBeGreaterThan(20);
  });

  test('is never worth more than all the repeats, and little where they are of one or two jobs', () => {
    expect(learnedSpread(history(10, 0, 5))!.df).toBeLessThanOrEqual(20);
    expect(learnedSpread([{ runs: 60, share: 0.003 }])).toMatchObject({ df: 4, share: expect.closeTo(0.003, 4) });
    expect(learnedSpread(history(10, 0, 5))!.repeats).toBe(30);
  });

  test('follows what the very car has shown, which counts as repeats of its own', () => {
    const others = history(20, 0.25, 7);
    const calm = { runs: 6, share: 0.0015, sameVehicle: true };
    const shop = learnedSpread(others)!;
    const found = learnedSpread([...others, calm])!;
    expect(found.df).toBeCloseTo(shop.df + 5, 9);
    expect(found.share ** 2).toBeCloseTo((shop.df * shop.share ** 2 + 5 * 0.0015 ** 2) / (shop.df + 5), 12);
    expect(found).toMatchObject({ repeats: 66, ofVehicle: 6 });
    // The first job of a shop is of one car, and worth no more than one job is.
    expect(learnedSpread([calm])!.df).toBe(4);
  });

  test('is nothing where nothing was repeated, or only readings rounded to nothing', () => {
    expect(learnedSpread([])).toBeUndefined();
    expect(
      learnedSpread([
        { runs: 1, share: 0.004 },
        { runs: 3, share: 0 },
      ]),
    ).toBeUndefined();
  });
});

describe('a dirty history', () => {
  const clean = history(12, 0.3, 9).map((repeats, index) => ({ ...repeats, of: `B of ${index + 1} May 2026` }));

  test('of runs that were cut does not move what is learned, and is named', () => {
    const cut = [
      { runs: 2, share: 0.223, of: 'C of 14 May 2026', car: 'Tarrow Six' },
      { runs: 3, share: 0.12, of: 'D of 15 May 2026' },
    ];
    const [before, after] = [learnedSpread(clean)!, learnedSpread([...clean, ...cut])!];
    expect(after.leftOut).toEqual(['Tarrow Six, C of 14 May 2026', 'D of 15 May 2026']);
    expect(after.share).toBeCloseTo(before.share, 9);
    // Two of six.
    const few = learnedSpread([...clean.slice(0, 4), ...cut])!;
    expect(few.leftOut).toEqual(['Tarrow Six, C of 14 May 2026', 'D of 15 May 2026']);
    expect(few.share).toBeLessThan(0.008);
    // It is all that there is: better what is usual of a dyno.
    expect(learnedSpread(cut.slice(0, 1))).toBeUndefined();
  });

  test('of readings that were rounded or copied is left out as well', () => {
    const after = learnedSpread([...clean, { runs: 4, share: 2e-6, of: 'B of 30 May 2026' }])!;
    expect(after.leftOut).toEqual(['B of 30 May 2026']);
  });

  test('of healthy cars, restless ones among them, loses hardly one in a hundred', () => {
    const drawn = Array.from({ length: 30 }, (_, seed) =>
      history(20, 0.4, 100 + seed).map((repeats) => ({ ...repeats, of: 'x' })),
    );
    const left = drawn.reduce((sum, shop) => sum + (learnedSpread(shop)!.leftOut?.length ?? 0), 0);
    expect(left / 600).toBeLessThan(0.03);
  });
});

describe('a difference that rests on a known spread', () => {
  const learned = { standardDeviation: 0.4, df: 20, from: 'learned' as const };

  test('has the posterior’s variance and degrees of freedom', () => {
    const found = meanDifference([1, 1.5, 2], [5, 5.5, 6], { prior: learned });
    expect(found.df).toBe(24);
    expect(found.standardDeviation ** 2).toBeCloseTo((20 * 0.16 + 4 * 0.25) / 24, 9);
    expect(found.from).toBe('learned');
  });

  test('does not believe it where its own runs plainly scatter more', () => {
    expect(meanDifference([1, 9, 3], [15, 6, 27], { prior: learned }).from).toBe('pooled');
  });

  test('a default counts as the runs’ own with three degrees of freedom of theirs, and needs its upper end before', () => {
    const { share, upperShare, df, from } = assumedSpread('hub');
    const prior = { standardDeviation: 100 * share, upper: 100 * upperShare!, df, from };
    const one = meanDifference([102], [100], { prior });
    expect(one.from).toBe('assumed');
    expect(one.pValue).toBeGreaterThan(one.plainPValue);
    expect(meanDifference([102, 102.3, 102.5], [100, 100.4], { prior })).toMatchObject({ from: 'pooled', df: 6 });
  });

  test('holds the true difference in 95 of 100 drawn pairs of one run each', () => {
    const noise = normal(chance(11));
    let held = 0;
    const pairs = 2000;
    for (let pair = 0; pair < pairs; pair++) {
      // A car's own variance is drawn from what the prior says: χ² with 8 degrees of freedom, inverted.
      const chiSquare = Array.from({ length: 8 }, () => noise() ** 2).reduce((sum, value) => sum + value, 0);
      const spread = 0.4 * Math.sqrt(8 / chiSquare);
      const found = meanDifference([100 + spread * noise()], [100 + spread * noise()], {
        prior: { ...learned, df: 8 },
      });
      if (Math.abs(found.difference) <= found.halfWidth) held++;
    }
    expect(held / pairs).toBeGreaterThan(0.935);
    expect(held / pairs).toBeLessThan(0.965);
  });

  test('holds wherever a bias lies within its bound, and hardly more often than it says at the bound', () => {
    const noise = normal(chance(5));
    const held = (bias: number) => {
      let count = 0;
      for (let pair = 0; pair < 4000; pair++) {
        const runs = (moved: number) => Array.from({ length: 3 }, () => 100 + moved + noise());
        const found = meanDifference(runs(bias), runs(0), { drift: { most: 0.9 } });
        if (Math.abs(found.difference) <= found.halfWidth) count++;
      }
      return count / 4000;
    };
    expect(held(0.9)).toBeGreaterThan(0.94);
    expect(held(0.9)).toBeLessThan(0.96);
    expect(held(-0.9)).toBeGreaterThan(0.94);
    expect(held(0.3)).toBeGreaterThan(0.96);
  });

  test('takes a drift out where that tells more, and says so; probability and smallest change follow', () => {
    const takenOut = { difference: -2, widening: 1.2, most: 0.5 };
    const far = meanDifference([1, 2, 3], [5, 6, 7], { drift: { most: 4, takenOut } });
    expect(far).toMatchObject({ difference: -2, asMeasured: -4, withoutDrift: true });
    expect(far.smallestDetectable).toBeGreaterThan(far.halfWidth);
    expect(far.pValue > 0.05).toBe(Math.abs(far.difference) < far.halfWidth);
    const near = meanDifference([1, 2, 3], [5, 6, 7], { drift: { most: 0.1, takenOut } });
    expect(near).toMatchObject({ difference: -4, withoutDrift: false });
  });
});
