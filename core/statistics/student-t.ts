import fCdf from '@stdlib/stats-base-dists-f-cdf';
import tCdf from '@stdlib/stats-base-dists-t-cdf';
import tQuantile from '@stdlib/stats-base-dists-t-quantile';
import { keptPoints } from './kept-points.ts';

/** Probability that a t variable lies outside ±|t|. @param df degrees of freedom, above 0 */
export function twoSidedProbability(t: number, df: number): number {
  return 2 * tCdf(-Math.abs(t), df);
}

const kept = keptPoints();

/**
 * The value that a t variable stays within with the given probability, both ways.
 * @param level 0 to 1, such as 0.95
 * @param df degrees of freedom, above 0
 */
export function studentT(level: number, df: number): number {
  return kept(`${level}/${df}`, () => tQuantile(1 - (1 - level) / 2, df));
}

/**
 * Probability that a ratio of two sample variances of equally spread values
 * is as far from 1 as this one, either way.
 * @param ratio first variance ÷ second, above 0
 */
export function varianceRatioProbability(ratio: number, df: number, otherDf: number): number {
  const below = fCdf(ratio, df, otherDf);
  return 2 * Math.min(below, 1 - below);
}
