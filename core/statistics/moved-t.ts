import betainc from '@stdlib/math-base-special-betainc';
import { fallingRoot } from '../numerics/root.ts';
import { keptPoints } from './kept-points.ts';
import { studentT, twoSidedProbability } from './student-t.ts';

/** A bias of less, in standard errors, is none. */
const unmoved = 1e-4;
/** Terms of the sum that are looked at: so many standard deviations of a Poisson variable about its mean. */
const reach = 9;

/**
 * Probability that a t variable whose middle was moved by a bias lies outside ±|t|:
 * noncentral t, both tails. T² is noncentral F with one degree of freedom, a
 * Poisson mixture of beta distributions: Σ Poisson(j; δ²/2)·(1 − I_x(j + ½, ν/2)), x = t²/(t² + ν).
 * Source: Johnson, Kotz and Balakrishnan, Continuous Univariate Distributions 2, 2nd ed. (1995), §30.2, §31.4.
 *
 * @param df degrees of freedom ν, above 0
 * @param moved the bias δ in true standard errors; its sign does not matter
 */
export function movedProbability(t: number, df: number, moved: number): number {
  if (Math.abs(moved) < unmoved) return twoSidedProbability(t, df);
  const x = t ** 2 / (t ** 2 + df);
  const mean = moved ** 2 / 2;
  const first = Math.max(0, Math.floor(mean - reach * Math.sqrt(mean) - reach));
  const last = Math.ceil(mean + reach * Math.sqrt(mean) + reach);
  let share = Math.exp(first * Math.log(mean) - mean - logFactorial(first));
  let sum = 0;
  for (let index = first; index <= last; index++) {
    sum += share * betainc(x, index + 0.5, df / 2, true, true);
    share *= mean / (index + 1);
  }
  return Math.min(1, sum);
}

function logFactorial(n: number): number {
  let sum = 0;
  for (let k = 2; k <= n; k++) sum += Math.log(k);
  return sum;
}

const kept = keptPoints();

/**
 * How many standard errors an estimate whose bias is at most `moved` of them stays within, with the given
 * probability. For many degrees of freedom the 95 % point of |N(moved, 1)|.
 * Source: Armstrong and Kolesár, Econometrica 86 (2018) 655, §2.
 *
 * @param level 0 to 1, such as 0.95
 */
export function movedT(level: number, df: number, moved: number): number {
  const least = studentT(level, df);
  if (!(moved > unmoved)) return least;
  const wanted = Math.log(1 - level);
  // A thousandth of a standard error changes nothing that is shown.
  return kept(`${level}/${df}/${moved.toFixed(3)}`, () =>
    fallingRoot(
      (t) => Math.log(movedProbability(t, df, moved)) - wanted,
      least,
      (1 + moved / Math.min(least, 2)) * least,
    ),
  );
}
