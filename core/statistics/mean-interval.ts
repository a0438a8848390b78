import { posterior, type KnownDeviation } from './mean-difference.ts';
import { together } from './variance-prior.ts';
import type { SpreadPrior } from './spread-prior.ts';
import { studentT } from './student-t.ts';

/** Repeats of one figure: how many, their mean, and their standard deviation (NaN for one). */
export interface RepeatedFigure {
  runs: number;
  mean: number;
  standardDeviation: number;
}

/**
 * Half of the 95 % interval of a mean of repeats, in its unit, by their own
 * spread, that of the job's other repeats and the usual one together: a run that
 * stands alone is no surer than the job's runs show.
 * @param prior undefined where nothing is known beforehand of this kind of figure
 * @param alike the spread of the job's other repeats, as a share of their means
 * @returns undefined where there is no spread to make it from
 */
export function halfWidthOfMean(
  { runs, mean, standardDeviation }: RepeatedFigure,
  prior: SpreadPrior | undefined,
  alike?: KnownDeviation,
): number | undefined {
  const others = alike && alike.df > 0 ? { variance: (alike.standardDeviation * mean) ** 2, df: alike.df } : undefined;
  const told = [...(runs > 1 ? [{ variance: standardDeviation ** 2, df: runs - 1 }] : []), ...(others ? [others] : [])];
  const { variance, df } = told.length > 0 ? together(told) : { variance: NaN, df: 0 };
  const own = { standardDeviation: Math.sqrt(variance), df };
  const usual = prior && { standardDeviation: prior.share * mean, df: prior.df };
  if (!usual && df === 0) return undefined;
  const known = usual ? (df > 0 ? posterior(own, usual) : usual) : own;
  const half = (studentT(0.95, known.df) * known.standardDeviation) / Math.sqrt(runs);
  return Number.isFinite(half) ? half : undefined;
}
