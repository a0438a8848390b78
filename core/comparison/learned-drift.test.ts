import { describe, expect, test } from '@jest/globals';
import { scatterOf } from '../numerics/mean.ts';
import type { Repeats } from '../statistics/spread-prior.ts';
import { chance, normal } from '../testing/chance.ts';
import { usualDrift } from './drift.ts';
import { learnedDrift } from './learned-drift.ts';

interface DrawnShop {
  places?: readonly number[];
  /** Cars' spreads scatter by this share. */
  cars?: number;
  /** Every day drifts by this much a run, in units of the spread; days differ by so much. */
  mean?: number;
  differs?: number;
}

/** Repeats of drawn jobs at their places in the session. */
function history(seed: number, jobs: number, { places = [0, 1, 2, 6], cars = 0, mean = 0, differs = 0 }: DrawnShop) {
  const noise = normal(chance(seed * 31 + 1));
  const middle = places.reduce((sum, place) => sum + place, 0) / places.length;
  const placeScatter = places.reduce((sum, place) => sum + (place - middle) ** 2, 0);
  return Array.from({ length: jobs }, (): Repeats => {
    const spread = 0.004 * Math.exp(cars * noise());
    const perRun = mean + differs * noise();
    const values = places.map((place) => spread * (noise() + perRun * place));
    const slope = places.reduce((sum, place, index) => sum + (place - middle) * values[index]!, 0) / placeScatter;
    return {
      runs: places.length,
      share: Math.sqrt(scatterOf(values) / (places.length - 1)),
      slope: { perRun: slope, placeScatter },
    };
  });
}
const shops = (count: number, jobs: number, shop: DrawnShop) =>
  Array.from({ length: count }, (_, seed) => learnedDrift(history(seed, jobs, shop)).perRun);
const shareAbove = (found: readonly number[]) =>
  found.filter((perRun) => perRun > usualDrift.perRun).length / found.length;

describe('the drift that a shop has learned of', () => {
  test('is raised in a twentieth of the shops that have none, whether their cars are alike or not', () => {
    expect(shareAbove(shops(400, 20, { places: [0, 1, 2] }))).toBeLessThan(0.075);
    expect(shareAbove(shops(400, 20, { places: [0, 1, 2], cars: 0.3 }))).toBeLessThan(0.075);
    expect(shareAbove(shops(200, 30, { cars: 0.3 }))).toBeLessThan(0.075);
  });

  test('is found where every day goes one way, though three runs in a row tell little', () => {
    expect(shareAbove(shops(200, 60, { places: [0, 1, 2], mean: 0.3 }))).toBeGreaterThan(0.65);
    expect(shareAbove(shops(200, 60, { places: [0, 1, 2], mean: -0.3, cars: 0.3 }))).toBeGreaterThan(0.65);
  });

  test('is found where days differ, and reckoned with at the upper end of what it may be', () => {
    const found = shops(100, 30, { differs: 0.5 });
    expect(found.filter((perRun) => perRun >= 0.5).length).toBeGreaterThan(75);
    expect(Math.max(...found)).toBeLessThan(1.5);
  });

  test('of a shop whose days are plainly calm makes the allowance smaller', () => {
    const found = shops(60, 80, {});
    expect(found.filter((perRun) => perRun < 0.2).length).toBeGreaterThan(45);
    expect(Math.min(...found)).toBeGreaterThanOrEqual(0.05);
    // It holds nevertheless: where days drift by more than that, it is not made smaller.
    expect(shops(60, 80, { differs: 0.3 }).filter((perRun) => perRun < 0.25).length).toBeLessThan(6);
  });

  test('needs a history: a few jobs, or repeats whose order nobody knows, change nothing', () => {
    expect(learnedDrift(history(1, 7, { mean: 3 }))).toEqual(usualDrift);
    const timeless = history(1, 40, { mean: 3 }).map(({ runs, share }) => ({ runs, share }));
    expect(learnedDrift(timeless)).toEqual(usualDrift);
  });

  test('is not made by one setup that was cut', () => {
    const cut: Repeats = { runs: 4, share: 0.2, slope: { perRun: 0.08, placeScatter: 20.75 } };
    const calm = history(3, 40, {});
    expect(learnedDrift([...calm, cut]).perRun).toBeLessThan(1.3 * learnedDrift(calm).perRun + 0.05);
  });
});
