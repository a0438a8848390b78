import { sampleAt } from '../numerics/sample-at.ts';
import { fallingRoot } from '../numerics/root.ts';
import { studentT, twoSidedProbability } from './student-t.ts';

/**
 * Critical value of a whole curve: how many standard errors a difference of
 * curves stays within *everywhere* with the given probability, when it is
 * nothing but scatter.
 *
 * P(sup |t| > c) ≈ P(|T_ν| > c) + κ/π · (1 + c²/ν)^(−(ν−1)/2), κ being how far
 * the standardised scatter turns along the range, in radians: stiff curves
 * that move up and down as a whole have κ near 0 and c near Student's t.
 * Source: Worsley, Advances in Applied Probability 26 (1994) 13, the t field in
 * one dimension; the expected number of upcrossings, an upper bound for small
 * probabilities.
 *
 * @param kappaRad from `turning`
 * @param df degrees of freedom of the standard errors
 */
export function simultaneousT(level: number, kappaRad: number, df: number): number {
  const least = studentT(level, df);
  if (!(kappaRad > 0)) return least;
  const wanted = Math.log(1 - level);
  return fallingRoot((c) => Math.log(supremumProbability(c, kappaRad, df)) - wanted, least, 2 * least);
}

/** Probability that nothing but scatter strays by more than c standard errors somewhere along the range, either way. */
export function supremumProbability(c: number, kappaRad: number, df: number): number {
  return Math.min(1, twoSidedProbability(c, df) + (kappaRad / Math.PI) * (1 + (c * c) / df) ** (-(df - 1) / 2));
}

/**
 * How far the scatter of runs turns along the range, rad: the length of the
 * path of the residuals' unit vector. Its expectation is ∫√λ dx, λ the
 * variance of the standardised scatter's slope, for any degrees of freedom
 * from 2 on. Source: after Kiebel et al., NeuroImage 10 (1999) 756.
 *
 * @param residuals one array a run, over the same places
 */
export function turning(residuals: readonly Float64Array[]): number {
  const places = residuals[0]?.length ?? 0;
  let sum = 0;
  const before = new Float64Array(residuals.length);
  for (let place = 0; place < places; place++) {
    let square = 0;
    for (const run of residuals) square += sampleAt(run, place) ** 2;
    const length = Math.sqrt(square) || 1;
    let step = 0;
    residuals.forEach((run, index) => {
      const value = sampleAt(run, place) / length;
      if (place > 0) step += (value - sampleAt(before, index)) ** 2;
      before[index] = value;
    });
    sum += Math.sqrt(step);
  }
  return sum;
}
