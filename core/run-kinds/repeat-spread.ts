import { bandMean } from '../curve/band-mean.ts';
import { byMounting } from '../likeness/mountings.ts';
import { meanOf } from '../numerics/mean.ts';
import { pooledStandardDeviation } from '../statistics/mean-difference.ts';
import type { Repeats } from '../statistics/spread-prior.ts';

/** A counted run of a setup, corrected for the air. */
export interface RepeatedRun {
  atMs: number;
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
  const from = Math.max(...runs.map(({ engineSpeedRpm }) => engineSpeedRpm[0]!));
  const to = Math.min(...runs.map(({ engineSpeedRpm }) => engineSpeedRpm[engineSpeedRpm.length - 1]!));
  if (!(to > from)) return undefined;
  const means = runs.map((run) => ({ atMs: run.atMs, kw: bandMean(run.engineSpeedRpm, run.powerKw, from, to) }));
  const level = meanOf(means.map(({ kw }) => kw));
  const mountings = byMounting(means, ({ atMs }) => atMs).map((list) => list.map(({ kw }) => kw / level));
  const { standardDeviation, df } = pooledStandardDeviation(mountings);
  return df > 0 ? { runs: df + 1, share: standardDeviation } : undefined;
}
