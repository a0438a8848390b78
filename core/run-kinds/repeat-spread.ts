import { rangeOf } from '../curve/covered-range.ts';
import { bandMean } from '../curve/band-mean.ts';
import { byMounting } from '../likeness/mountings.ts';
import { meanOf } from '../numerics/mean.ts';
import { pooledStandardDeviation } from '../statistics/mean-difference.ts';
import type { Repeats, RepeatsSlope } from '../statistics/spread-prior.ts';

/** A counted run of a setup, corrected for the air. */
export interface RepeatedRun {
  atMs: number;
  /** Which run of its session it was. */
  place?: number | undefined;
  /** rpm, rising; kW. */
  engineSpeedRpm: Float64Array;
  powerKw: Float64Array;
}

/**
 * The spread of a setup's repeats, as a share of their mean power over the
 * range that all cover; within mountings only, for strapping anew moves more.
 * @returns undefined where no mounting has two runs, or they share no range
 */
export function repeatSpread(runs: readonly RepeatedRun[]): Repeats | undefined {
  if (runs.length < 2) return undefined;
  const [from, to] = rangeOf(runs);
  if (!(to > from)) return undefined;
  const means = runs.map((run) => ({
    atMs: run.atMs,
    place: run.place,
    kw: bandMean(run.engineSpeedRpm, run.powerKw, from, to),
  }));
  const level = meanOf(means.map(({ kw }) => kw));
  const mountings = byMounting(means, ({ atMs }) => ({ atMs }));
  const { standardDeviation, df } = pooledStandardDeviation(mountings.map((list) => list.map(({ kw }) => kw / level)));
  if (df === 0) return undefined;
  const slope = slopeOf(mountings.map((list) => list.map(({ place, kw }) => ({ place, share: kw / level }))));
  return { runs: df + 1, share: standardDeviation, ...(slope ? { slope } : {}) };
}

/** The change from run to run that all mountings share; undefined where the places are not known. */
function slopeOf(mountings: readonly { place: number | undefined; share: number }[][]): RepeatsSlope | undefined {
  let [sxx, sxy] = [0, 0];
  for (const list of mountings) {
    const placed = list.flatMap(({ place, share }) => (place === undefined ? [] : [{ place, share }]));
    if (placed.length < list.length) return undefined;
    const [x, y] = [meanOf(placed.map(({ place }) => place)), meanOf(placed.map(({ share }) => share))];
    for (const { place, share } of placed) {
      sxx += (place - x) ** 2;
      sxy += (place - x) * (share - y);
    }
  }
  return sxx > 0 ? { perRun: sxy / sxx, placeScatter: sxx } : undefined;
}
