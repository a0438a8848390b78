import { meanOf, scatterOf } from '../numerics/mean.ts';
import { pooledStandardDeviation, type KnownDeviation } from './mean-difference.ts';

// Set by bench/coverage.ts: two cars of two mountings to eight of three.
/** Before the runs within count in full against the mountings' scatter, so many degrees of freedom are as good as against it. */
const slowToBelieve = 4;

/**
 * Spread from one mounting to the next, from setups that were measured in
 * several: the scatter of the mountings' means less what the scatter of runs
 * within them explains (one-way analysis of variance). Few mountings agree by
 * chance, so less is taken off while there are few; the degrees of freedom are
 * those of the difference of both variances (Satterthwaite).
 * Source: Montgomery, Design and Analysis of Experiments, 8th ed., §3.9.
 *
 * @param setups for each setup its mountings, for each mounting its runs' figures
 * @returns undefined when no setup was mounted twice; a spread of 0 where runs within a mounting explain all
 */
export function remountDeviation(setups: readonly (readonly (readonly number[])[])[]): KnownDeviation | undefined {
  const repeated = setups
    .map((mountings) => mountings.filter((runs) => runs.length > 0))
    .filter((mountings) => mountings.length > 1);
  if (repeated.length === 0) return undefined;
  const within = pooledStandardDeviation(repeated.flat());
  const df = repeated.reduce((sum, mountings) => sum + mountings.length - 1, 0);
  const perSetup = (of: (mountings: readonly (readonly number[])[]) => number) =>
    repeated.reduce((sum, mountings) => sum + of(mountings), 0) / df;
  const scattered = perSetup((mountings) => scatterOf(mountings.map(meanOf)));
  const byRuns = (runs: readonly number[]) => (within.df > 0 ? within.standardDeviation ** 2 / runs.length : 0);
  const explained = perSetup((mountings) => (mountings.length - 1) * meanOf(mountings.map(byRuns)));
  const takenOff = (explained * df) / (df + slowToBelieve);
  const variance = scattered - takenOff;
  if (!(variance > 0)) return { standardDeviation: 0, df };
  const unsure = scattered ** 2 / df + (within.df > 0 ? takenOff ** 2 / within.df : 0);
  return { standardDeviation: Math.sqrt(variance), df: Math.max(1, variance ** 2 / unsure) };
}
