import { incompleteBeta } from './incomplete-beta.ts';
import { fallingRoot } from './root.ts';

/** Probability that a t variable lies outside ±|t|. @param df degrees of freedom, above 0 */
export function twoSidedProbability(t: number, df: number): number {
  return incompleteBeta(df / 2, 0.5, df / (df + t * t));
}

/** Points found before: the same few are asked for again and again, and each takes a search. */
const points = new Map<string, number>();
const mostPoints = 2000;

/**
 * The value that a t variable stays within with the given probability, both ways.
 * @param level 0 to 1, such as 0.95
 * @param df degrees of freedom, above 0
 */
export function studentT(level: number, df: number): number {
  const key = `${level}/${df}`;
  const kept = points.get(key);
  if (kept !== undefined) return kept;
  // In the logarithm the tail is nearly straight.
  const wanted = Math.log(1 - level);
  const point = fallingRoot((t) => Math.log(Math.max(twoSidedProbability(t, df), 1e-300)) - wanted, 0, 2);
  if (points.size >= mostPoints) points.clear();
  points.set(key, point);
  return point;
}

/**
 * Probability that a ratio of two sample variances of equally spread values
 * is as far from 1 as this one, either way.
 * @param ratio first variance ÷ second, above 0
 */
export function varianceRatioProbability(ratio: number, df: number, otherDf: number): number {
  const upper = incompleteBeta(otherDf / 2, df / 2, otherDf / (otherDf + df * ratio));
  return 2 * Math.min(upper, 1 - upper);
}
