import { bestOnPlane, type BestOnPlane } from '../core/response/best-on-plane.ts';
import type { Observation, PlanePoint } from '../core/response/surface-fit.ts';
import { drawnSurface } from '../core/testing/drawn-surface.ts';
import type { Figure } from './figure.ts';

const surfaces = 1000;
const noise = 0.0022;
const reach = 4;
const mostRuns = 12;

/** Two items tuned within twelve runs over drawn surfaces with a limit across them, beside one item after the other. */
export function surfaceRates(): Figure[] {
  let [good, held, beyond, proposals, runs, goodByTurns, beyondByTurns, stepsByTurns] = [0, 0, 0, 0, 0, 0, 0, 0];
  for (let seed = 1; seed <= surfaces; seed++) {
    const surface = drawnSurface(seed, reach, noise);
    const [power, limited]: [Observation[], Observation[]] = [[], []];
    let told: BestOnPlane | undefined;
    let at: PlanePoint = { u: 0, v: 0 };
    for (let run = 0; run < mostRuns; run++) {
      if (run > 0) proposals++;
      if (surface.limited(at) > 1) beyond++;
      power.push({ ...at, value: surface.readPower(at) });
      limited.push({ ...at, value: surface.readLimited(at) });
      told = bestOnPlane({ power, limits: [{ label: 'limit', observations: limited }], noise, noiseDf: 200, reach });
      if (!told.next) break;
      at = told.next;
    }
    runs += power.length;
    if (!told) continue;
    const reached = surface.power(told.gentlest);
    if (reached >= 0.995 * surface.best) good++;
    if (Math.abs(reached - told.gentlest.value) <= told.gentlest.halfWidth) held++;
    const turns = oneByOne(surface);
    if (surface.power(turns.at) >= 0.995 * surface.best && surface.limited(turns.at) <= 1) goodByTurns++;
    beyondByTurns += turns.beyond;
    stepsByTurns += turns.runs - 1;
  }
  const percent = (count: number, of: number) => (100 * count) / of;
  return [
    {
      name: `two items: within 0.5 % of the best allowed, ${surfaces} surfaces, ${(runs / surfaces).toFixed(1)} runs each`,
      value: percent(good, surfaces),
      unit: '%',
    },
    { name: 'two items: intervals that hold the truth', value: percent(held, surfaces), unit: '%' },
    { name: 'two items: proposals beyond the limit', value: percent(beyond, proposals), unit: '%', budget: 1 },
    { name: 'one item after the other: within 0.5 %, twelve runs', value: percent(goodByTurns, surfaces), unit: '%' },
    { name: 'one item after the other: runs beyond the limit', value: percent(beyondByTurns, stepsByTurns), unit: '%' },
  ];
}

/** As it is usually done: one item up while it gains, then the other, then the first once more. */
function oneByOne(surface: ReturnType<typeof drawnSurface>): { at: PlanePoint; beyond: number; runs: number } {
  let at: PlanePoint = { u: 0, v: 0 };
  let best = surface.readPower(at);
  let [runs, beyond] = [1, 0];
  for (const [du, dv] of [
    [1, 0],
    [-1, 0],
    [0, 1],
    [0, -1],
    [0.5, 0],
    [-0.5, 0],
    [0, 0.5],
    [0, -0.5],
  ] as const) {
    while (runs < mostRuns) {
      const next = { u: at.u + du, v: at.v + dv };
      runs++;
      const broke = surface.readLimited(next) > 1;
      if (surface.limited(next) > 1) beyond++;
      const power = surface.readPower(next);
      if (broke || power <= best) break;
      [at, best] = [next, power];
    }
  }
  return { at, beyond, runs };
}
