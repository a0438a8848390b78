import {
  differenceBetween,
  fitSurface,
  surfaceAt,
  type Observation,
  type PlanePoint,
  type Surface,
  type SurfacePrior,
} from './surface-fit.ts';

/** A limited reading over the plane, told so that 0 is the reading at the beginning and 1 the limit. */
export interface LimitedReading {
  label: string;
  observations: readonly Observation[];
}

export interface PlaneTask {
  /** Power as a share of that at the beginning, by runs. */
  power: readonly Observation[];
  limits: readonly LimitedReading[];
  /** Standard deviation of a run's power, as a share, and how well it is known. */
  noise: number;
  noiseDf: number;
  /** How far from the beginning either item may go, in steps. */
  reach: number;
}

/** A setting that is proposed or recommended. */
export interface ToldPoint extends PlanePoint {
  /** Share of the power at the beginning, with the half width of its 95 % interval. */
  value: number;
  halfWidth: number;
}

export interface BestOnPlane {
  surface: Surface;
  limits: { label: string; surface: Surface }[];
  /** The greatest power that no limit forbids. */
  best: ToldPoint;
  /** Limits that forbid a better setting beside the best, with confidence. */
  heldBy: string[];
  /** The setting nearest to the beginning that keeps 99.5 % of it, with confidence. */
  gentlest: ToldPoint;
  /** The most telling setting that no limit forbids, a step from safe ground at most; undefined where another run tells next to nothing. */
  next: (PlanePoint & { why: 'best may lie there' | 'little is known there' }) | undefined;
  /** By how much the best may still be better than the gentlest, as a share, 95 %. */
  mayGain: number;
}

// Set by bench/surfaces.ts: settings within half a percent of the true best, proposals beyond a limit, over 1,000 drawn surfaces.
/** What power surfaces are like, as shares of the power at the beginning, a step: they bend downwards. */
const powerPrior: SurfacePrior = {
  mean: [1, 0, 0, -0.004, -0.004, 0],
  standardDeviation: [0.02, 0.012, 0.012, 0.003, 0.003, 0.002],
};
/** What readings with a limit are like, as shares of the room that there was to it. */
const limitPrior: SurfacePrior = {
  mean: [0, 0, 0, 0, 0, 0],
  standardDeviation: [0.08, 0.3, 0.3, 0.06, 0.06, 0.05],
};
const limitNoise = 0.03;
/** A reading is kept below its limit by so many of its standard deviations, and by this share of the room. */
const safeSds = 2.3;
const safeShare = 0.97;
/** No proposal lies further from what was tried than this, in steps, and what it leans on must keep so much of the room. */
const longestStep = 1.02;
const groundShare = 0.95;
const gridStep = 0.25;
const goodShare = 0.005;
const sureSds = 1.3;
/** A best that may be better by so many standard deviations is looked at. */
const curious = 2;
/** A run that may find less than this is not worth its wear, as a share. */
const worthShare = 0.001;

/**
 * Two items at once: a quadratic surface of power, and one of each limited
 * reading; the best that the limits allow, the gentlest setting that keeps
 * almost all of it, and the setting to try next: where the best may still be
 * better by most, no more than a step from ground that was tried and kept every
 * limit, and inside each limit by what is not known of it. It advises; the
 * operator decides.
 *
 * @param task at least one run at the beginning, u = v = 0
 */
export function bestOnPlane(task: PlaneTask): BestOnPlane {
  const { power, noise, noiseDf, reach } = task;
  const surface = fitSurface(power, powerPrior, noise, noiseDf);
  const limits = task.limits.map(({ label, observations }) => ({
    label,
    surface: fitSurface(observations, limitPrior, limitNoise, 30),
  }));
  const tried = distinct(power);
  const ground = tried.filter((point) => limits.every((limit) => surfaceAt(limit.surface, point).value <= groundShare));
  const start = { u: 0, v: 0 };
  // Near enough first: that costs next to nothing, and most of the plane is far off.
  const safe = gridOf(reach)
    .filter((point) => [...ground, start].some((from) => apart(point, from) <= longestStep))
    .filter((point) => forbiddenBy(limits, point).length === 0);
  if (!safe.some((point) => apart(point, start) < 1e-9)) safe.push(start);
  let best: PlanePoint = start;
  for (const point of safe) if (surfaceAt(surface, point).value > surfaceAt(surface, best).value) best = point;
  const keeps = (point: PlanePoint) => {
    const less = differenceBetween(surface, point, best);
    return -less.value + sureSds * less.sd <= goodShare;
  };
  const gentlest = safe.filter(keeps).reduce((a, b) => (distance(b) < distance(a) - 1e-9 ? b : a), best);
  const hopes = safe.map((point) => {
    const more = differenceBetween(surface, point, best);
    const known = tried.some((other) => apart(point, other) < 1e-9);
    return { point, may: more.value + curious * more.sd * (known ? 0.6 : 1), more };
  });
  const most = hopes.reduce((a, b) => (b.may > a.may ? b : a));
  return {
    surface,
    limits,
    best: toldAt(surface, best),
    heldBy: heldBy(surface, limits, best),
    gentlest: toldAt(surface, gentlest),
    next:
      most.may > worthShare
        ? { ...most.point, why: most.more.value > -0.0005 ? 'best may lie there' : 'little is known there' }
        : undefined,
    mayGain: Math.max(0, most.may),
  };
}

const apart = (a: PlanePoint, b: PlanePoint) => Math.max(Math.abs(a.u - b.u), Math.abs(a.v - b.v));
const distance = ({ u, v }: PlanePoint) => Math.hypot(u, v);

/** The limits that a setting is not surely within: what is searched, hatched and said goes by this alone. */
export const forbiddenBy = (limits: BestOnPlane['limits'], point: PlanePoint): string[] =>
  limits.filter(({ surface }) => !isSafe(surface, point)).map(({ label }) => label);

/** The limits that forbid settings a small step from the best that would make more. */
function heldBy(surface: Surface, limits: BestOnPlane['limits'], best: PlanePoint): string[] {
  const beside = [-gridStep, 0, gridStep].flatMap((du) =>
    [-gridStep, 0, gridStep].map((dv) => ({ u: best.u + du, v: best.v + dv })),
  );
  const better = beside.filter((point) => differenceBetween(surface, point, best).value > 1e-6);
  return [...new Set(better.flatMap((point) => forbiddenBy(limits, point)))];
}

function isSafe(limit: Surface, point: PlanePoint): boolean {
  const { value, sd } = surfaceAt(limit, point);
  return value + safeSds * sd <= safeShare;
}

function toldAt(surface: Surface, point: PlanePoint): ToldPoint {
  const { value, sd } = surfaceAt(surface, point);
  return { ...point, value, halfWidth: surface.t * sd };
}

function gridOf(reach: number): PlanePoint[] {
  const steps = Math.round((2 * reach) / gridStep);
  const at = (index: number) => -reach + index * gridStep;
  return Array.from({ length: (steps + 1) ** 2 }, (_, index) => ({
    u: at(index % (steps + 1)),
    v: at(Math.floor(index / (steps + 1))),
  }));
}

function distinct(points: readonly PlanePoint[]): PlanePoint[] {
  return points.filter((point, index) => points.findIndex((other) => apart(point, other) < 1e-9) === index);
}
