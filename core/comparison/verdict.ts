import { holm } from '../statistics/holm.ts';
import type { MeanDifference } from '../statistics/mean-difference.ts';

/**
 * What a difference amounts to. `unknown`: there is no spread to judge it by;
 * `drift suspected`: a drift from run to run may have made it.
 */
export type Verdict = 'gain' | 'loss' | 'within repeatability' | 'drift suspected' | 'unknown';

/**
 * Verdicts on several differences together, such as several setups against one
 * baseline: a gain or loss only where Holm's rule calls it, so that any wrong
 * one among them has a chance of 5 %.
 */
export function verdictsOn(differences: readonly (MeanDifference | undefined)[]): Verdict[] {
  const called = holm(differences.map((difference) => difference?.pValue ?? NaN));
  return differences.map((difference, index) => {
    if (!difference || Number.isNaN(difference.pValue)) return 'unknown';
    if (!called[index]) return 'within repeatability';
    return difference.difference > 0 ? 'gain' : 'loss';
  });
}
