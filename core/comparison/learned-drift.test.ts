import { describe, expect, test } from '@jest/globals';
import { scatterOf } from '../numerics/mean.ts';
import type { Repeats } from '../statistics/spread-prior.ts';
import { chance, normal } from '../testing/chance.ts';
import { usualDrift } from './drift.ts';
import { learnedDrift } from './learned-drift.ts';

const spread = 0.004;

/** Repeats of drawn jobs at their places in the session, each with a drift of its own, in units of the spread. */
function history(seed: number, jobs: number, places: readonly number[], drift: number): Repeats[] {
  const noise = normal(chance(seed));
  const middle = places.reduce((sum, place) => sum + place, 0) / places.length;
  const placeScatter = places.reduce((sum, place) => sum + (place - middle) ** 2, 0);
  return Array.from({ length: jobs }, () => {
    const perRun = drift * noise();
    const values = places.map((place) => spread * (noise() + perRun * place));
    const slope = places.reduce((sum, place, index) => sum + (place - middle) * values[index]!, 0) / placeScatter;
    return {
      runs: places.length,
      share: Math.sqrt(scatterOf(values) / (places.length - 1)),
      slope: { perRun: slope, placeScatter },
    };
  });
}
const returned = [0, 1, 2, 6];
const raised = (repeats: Repeats[]) => learnedDrift(repeats).rising.perRun > usualDrift.learned.rising.perRun;

describe('the drift that a shop has learned of', () => {
  test('stays the usual one where nothing drifts: few shops in a hundred are told otherwise', () => {
    const shops = Array.from({ length: 400 }, (_, seed) => raised(history(seed, 30, returned, 0)));
    expect(shops.filter(Boolean).length / shops.length).toBeLessThan(0.06);
  });

  test('is seen where baselines were run first and last, and reckoned with about its size', () => {
    const shops = Array.from(
      { length: 100 },
      (_, seed) => learnedDrift(history(seed, 30, returned, 0.5)).rising.perRun,
    );
    expect(shops.filter((perRun) => perRun > 0.25).length).toBeGreaterThan(70);
    expect(Math.max(...shops)).toBeLessThan(0.9);
    expect(learnedDrift(history(5, 30, returned, 0.5)).sagging).toEqual(usualDrift.learned.sagging);
  });

  test('needs a history: a few jobs, or repeats whose order nobody knows, change nothing', () => {
    expect(learnedDrift(history(1, 7, returned, 3))).toEqual(usualDrift.learned);
    expect(learnedDrift(history(1, 40, returned, 3).map(({ runs, share }) => ({ runs, share })))).toEqual(
      usualDrift.learned,
    );
  });
});
