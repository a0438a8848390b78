import type { MeanDifference } from '../statistics/mean-difference.ts';

/** What a difference amounts to. `unknown`: there is no spread to judge it by. */
export type Verdict = 'gain' | 'loss' | 'within repeatability' | 'unknown';

/** A gain or loss only where the 95 % interval is clear of zero. */
export function verdictOn(difference: MeanDifference): Verdict {
  if (Number.isNaN(difference.halfWidth)) return 'unknown';
  if (Math.abs(difference.difference) <= difference.halfWidth) return 'within repeatability';
  return difference.difference > 0 ? 'gain' : 'loss';
}
