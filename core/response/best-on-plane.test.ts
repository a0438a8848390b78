import { describe, expect, test } from '@jest/globals';
import { drawnSurface } from '../testing/drawn-surface.ts';
import { bestOnPlane, forbiddenBy, type BestOnPlane } from './best-on-plane.ts';
import { fitSurface, surfaceAt, type Observation } from './surface-fit.ts';

const noise = 0.0022;
const reach = 4;

/** Drives by what is proposed until nothing is, or twelve runs were made. */
function driven(seed: number) {
  const surface = drawnSurface(seed, reach, noise);
  const [power, limited]: [Observation[], Observation[]] = [[], []];
  let told: BestOnPlane | undefined;
  let beyond = 0;
  let proposals = 0;
  let at = { u: 0, v: 0 };
  for (let run = 0; run < 12; run++) {
    if (surface.limited(at) > 1) beyond++;
    power.push({ ...at, value: surface.readPower(at) });
    limited.push({ ...at, value: surface.readLimited(at) });
    told = bestOnPlane({ power, limits: [{ label: 'knock', observations: limited }], noise, noiseDf: 200, reach });
    if (!told.next) break;
    // Never further than a step from where a run was.
    const { u, v } = told.next;
    expect(Math.min(...power.map((point) => Math.max(Math.abs(point.u - u), Math.abs(point.v - v))))).toBeLessThan(
      1.03,
    );
    at = { u, v };
    proposals++;
  }
  return { surface, told: told!, runs: power.length, beyond, proposals };
}

describe('two items at once', () => {
  test('within twelve runs the setting is within half a percent of the best that the limit allows, and no proposal crosses it', () => {
    const surfaces = 100;
    let [good, covered, beyond, proposals, within] = [0, 0, 0, 0, 0];
    for (let seed = 1; seed <= surfaces; seed++) {
      const { surface, told, ...run } = driven(seed);
      const power = surface.power(told.gentlest);
      if (power >= 0.995 * surface.best) good++;
      if (Math.abs(power - told.gentlest.value) <= told.gentlest.halfWidth) covered++;
      if (surface.limited(told.gentlest) <= 1) within++;
      beyond += run.beyond;
      proposals += run.proposals;
      expect(run.runs).toBeLessThanOrEqual(12);
    }
    expect(good / surfaces).toBeGreaterThanOrEqual(0.9);
    expect(covered / surfaces).toBeGreaterThan(0.91);
    expect(covered / surfaces).toBeLessThan(0.99);
    expect(beyond / proposals).toBeLessThanOrEqual(0.01);
    expect(within / surfaces).toBeGreaterThan(0.98);
  });

  test('takes no whole step of both items at once while nothing is known of the limit', () => {
    const limits = [{ label: 'knock', observations: [{ u: 0, v: 0, value: 0 }] }];
    const { next } = bestOnPlane({ power: [{ u: 0, v: 0, value: 1 }], limits, noise, noiseDf: 20, reach });
    expect(next).toBeDefined();
    expect(Math.min(Math.abs(next!.u), Math.abs(next!.v))).toBeLessThan(1);
  });

  test('what is proposed, what is told as the best, and what is hatched go by one rule, and the limit is named', () => {
    const observations = [0, 1, 2].map((u) => ({ u, v: 0, value: 0.35 * u }));
    const power = [0, 1, 2].map((u) => ({ u, v: 0, value: 1 + 0.02 * u }));
    const told = bestOnPlane({ power, limits: [{ label: 'knock', observations }], noise, noiseDf: 20, reach });
    for (const point of [told.best, told.gentlest, ...(told.next ? [told.next] : [])])
      expect(forbiddenBy(told.limits, point)).toEqual([]);
    expect(told.heldBy).toEqual(['knock']);
    expect(forbiddenBy(told.limits, { u: 4, v: 0 })).toEqual(['knock']);
    const free = bestOnPlane({ power: [{ u: 0, v: 0, value: 1 }], limits: [], noise, noiseDf: 20, reach });
    expect(free.heldBy).toEqual([]);
  });

  test('at a limit already it goes no further that way', () => {
    const observations = [
      { u: 0, v: 0, value: 0 },
      { u: 1, v: 0, value: 0.98 },
      { u: 0, v: 1, value: 0.02 },
    ];
    const power = [
      { u: 0, v: 0, value: 1 },
      { u: 1, v: 0, value: 1.03 },
      { u: 0, v: 1, value: 1.005 },
    ];
    const { next, best } = bestOnPlane({
      power,
      limits: [{ label: 'knock', observations }],
      noise,
      noiseDf: 20,
      reach,
    });
    expect(next?.u ?? 0).toBeLessThanOrEqual(1);
    expect(best.u).toBeLessThan(1);
  });
});

test('a surface with many readings is that of the readings, whatever was believed of it', () => {
  const truth = ({ u, v }: { u: number; v: number }) =>
    1 + 0.03 * u - 0.02 * v - 0.006 * u * u - 0.002 * v * v + 0.001 * u * v;
  const readings = Array.from({ length: 49 }, (_, at) => ({ u: (at % 7) - 3, v: Math.floor(at / 7) - 3 })).map(
    (point) => ({ ...point, value: truth(point) }),
  );
  const prior = { mean: [1, 0, 0, 0, 0, 0], standardDeviation: [0.02, 0.01, 0.01, 0.003, 0.003, 0.002] };
  const surface = fitSurface(readings, prior, 0.0005, 40);
  for (const point of [
    { u: 1.5, v: -2 },
    { u: -3, v: 3 },
  ])
    expect(surfaceAt(surface, point).value).toBeCloseTo(truth(point), 3);
});
