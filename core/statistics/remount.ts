import { pooledStandardDeviation, type KnownDeviation } from './mean-difference.ts';
import { meanOf } from '../numerics/mean.ts';

/**
 * Spread from one mounting to the next, from setups that were measured in
 * several: the scatter of the mountings' means less what the scatter of runs
 * within them explains (one-way analysis of variance).
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
  let square = 0;
  let df = 0;
  for (const mountings of repeated) {
    const means = mountings.map(meanOf);
    const middle = meanOf(means);
    const scatter = means.reduce((sum, mean) => sum + (mean - middle) ** 2, 0);
    const explained = meanOf(
      mountings.map((runs) => (within.df > 0 ? within.standardDeviation ** 2 / runs.length : 0)),
    );
    square += scatter - (mountings.length - 1) * explained;
    df += mountings.length - 1;
  }
  return { standardDeviation: Math.sqrt(Math.max(0, square / df)), df };
}
