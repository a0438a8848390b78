import digamma from '@stdlib/math-base-special-digamma';
import trigamma from '@stdlib/math-base-special-trigamma';
import fCdf from '@stdlib/stats-base-dists-f-cdf';
import { medianOf } from '../numerics/quantile.ts';
import { fallingRoot } from '../numerics/root.ts';

/** A variance that was measured, and by how many degrees of freedom. */
export interface KnownVariance {
  /** Above 0. */
  variance: number;
  df: number;
}

/** Variances of one thing put together, each by its degrees of freedom: Σ νᵢ·sᵢ² ÷ Σ νᵢ. */
export function together(known: readonly KnownVariance[]): KnownVariance {
  const df = known.reduce((sum, one) => sum + one.df, 0);
  return { variance: known.reduce((sum, one) => sum + one.df * one.variance, 0) / df, df };
}

/** A scaled inverse χ² distribution of variances; its degrees of freedom are infinite where they differ by chance alone. */
export type VariancePrior = KnownVariance;

/** Before it is known how much true variances differ, they are taken to do so by as much as this many degrees of freedom. */
const usualDf = 4;
/** A variance that is larger than all but this share would be is another thing's; one that is smaller, less readily. */
const beyondAbove = 0.01;
const beyondBelow = 0.001;

/** Degrees of freedom beyond this change nothing, and the distributions' programs stay within what they can. */
export const asGoodAsInfinite = 1e6;

/** The point that an F variable lies below with a probability. */
export function varianceRatioPoint(probability: number, df: number, otherDf: number): number {
  return fallingRoot((x) => probability - fCdf(x, df, otherDf), 0, 1);
}

/** The middle of variances of different degrees of freedom: a few that are far away do not move it. */
function middleOf(known: readonly KnownVariance[], df: number): number {
  const told = Math.min(df, asGoodAsInfinite);
  return Math.exp(medianOf(known.map((one) => Math.log(one.variance / varianceRatioPoint(0.5, one.df, told)))));
}

/**
 * Which of the variances belong together: those that are plainly another thing's (a run that was cut, a reading that
 * was rounded) are told from the middle of them all, which they do not move while they are fewer than half.
 * @param expected counts as one more beside them, so that a single strange one is told, too
 */
export function belonging<Known extends KnownVariance>(known: readonly Known[], expected?: KnownVariance): Known[] {
  if (known.length === 0) return [];
  const middle = middleOf(expected ? [...known, expected] : known, usualDf);
  return known.filter(({ variance, df }) => {
    const below = fCdf(variance / middle, df, usualDf);
    return below < 1 - beyondAbove && below > beyondBelow;
  });
}

/**
 * Fits the distribution of true variances to measured ones. How much they differ by moments of the logarithms: a
 * variance's own chance is trigamma(ν/2) of it. Their size by the median, since moments of logarithms follow the
 * smallest.
 * Source: Smyth, Statistical Applications in Genetics and Molecular Biology 3 (2004) 3, §6.2.
 *
 * @param known at least one
 */
export function fittedVariances(known: readonly KnownVariance[]): VariancePrior {
  const logs = known.map(({ variance, df }) => ({
    value: Math.log(variance) - digamma(df / 2) + Math.log(df / 2),
    chance: trigamma(df / 2),
  }));
  const mean = logs.reduce((sum, { value }) => sum + value, 0) / logs.length;
  const more = logs.length / Math.max(1, logs.length - 1);
  const scatter = logs.reduce((sum, { value, chance }) => sum + (value - mean) ** 2 * more - chance, 0) / logs.length;
  const df = scatter > 0 ? 2 * inverseTrigamma(scatter) : Infinity;
  return { variance: middleOf(known, df), df };
}

/** @param value above 0; Infinity where it is as good as nothing */
function inverseTrigamma(value: number): number {
  const [low, high] = [-9, 10];
  const above = (logX: number) => Math.log(trigamma(Math.exp(logX))) - Math.log(value);
  if (above(high) > 0) return Infinity;
  return above(low) < 0 ? Math.exp(low) : Math.exp(fallingRoot(above, low, high));
}
