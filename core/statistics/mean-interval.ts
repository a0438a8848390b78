import { meanOf } from '../numerics/mean.ts';
import { withLoneSides } from './lone-side.ts';
import { pooledStandardDeviation, type KnownDeviation } from './mean-difference.ts';
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
  const asShare = ({ share, df }: { share: number; df: number }) => ({ variance: (share * mean) ** 2, df });
  const known = [
    { variance: standardDeviation ** 2, df: runs - 1 },
    ...(alike ? [asShare({ share: alike.standardDeviation, df: alike.df })] : []),
    ...(prior ? [asShare(prior)] : []),
  ].filter(({ df }) => df > 0);
  if (known.length === 0) return undefined;
  const { variance, df } = together(known);
  const told = runs - 1 + (alike?.df ?? 0);
  const half = studentT(0.95, withLoneSides({ df, told }, [runs])) * Math.sqrt(variance / runs);
  return Number.isFinite(half) ? half : undefined;
}

/** How repeats of several setups scatter, as a share of their own means. @param samples of each setup */
export function spreadOfRepeats(samples: readonly (readonly number[])[]): KnownDeviation {
  return pooledStandardDeviation(samples.map((values) => values.map((value) => value / meanOf(values))));
}
