import { posterior } from './mean-difference.ts';
import type { SpreadPrior } from './spread-prior.ts';
import { studentT } from './student-t.ts';

/** Repeats of one figure: how many, their mean, and their standard deviation (NaN for one). */
export interface RepeatedFigure {
  runs: number;
  mean: number;
  standardDeviation: number;
}

/**
 * Half of the 95 % interval of a mean of repeats, in its unit, by their own spread and the usual one together.
 * @param prior undefined where nothing is known beforehand of this kind of figure
 * @returns undefined where there is no spread to make it from
 */
export function halfWidthOfMean(
  { runs, mean, standardDeviation }: RepeatedFigure,
  prior: SpreadPrior | undefined,
): number | undefined {
  const own = { standardDeviation, df: runs - 1 };
  const usual = prior && { standardDeviation: prior.share * mean, df: prior.df };
  if (!usual && runs < 2) return undefined;
  const known = usual ? (runs > 1 ? posterior(own, usual) : usual) : own;
  const half = (studentT(0.95, known.df) * known.standardDeviation) / Math.sqrt(runs);
  return Number.isFinite(half) ? half : undefined;
}
