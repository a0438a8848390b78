import { solveInPlace } from '../numerics/small-system.ts';

/**
 * Local regression of a rate on a variable that moves with time: given an
 * accumulated quantity G(t) and a variable x(t), finds dG/dt at x₀ from
 *
 *   G(t) ≈ g + Σ_p β_p · ∫ ((x(s) − x₀)/r)^p ds,
 *
 * the rate being a polynomial of x near x₀ and β₀ its value there. So a drum
 * that speeds up unevenly is no error: what it turns against depends on its
 * speed, not on the clock. Weighted least squares with kernel 1 − u²,
 * u = (x − x₀)/r, r the distance to the farther end of the window.
 * Source: Fan and Gijbels, Local Polynomial Modelling and Its Applications
 * (1996), ch. 3, with integrated regressors.
 */

/** Time (s), accumulated quantity and variable at the same moments. */
export interface Traces {
  time: Float64Array;
  amount: Float64Array;
  variable: Float64Array;
}

const maximumTerms = 4;
/** A pivot of the normal equations below this counts as zero: the samples do not determine the fit. */
const leastPivot = 1e-18;
const normal = new Float64Array(maximumTerms * maximumTerms);
const moment = new Float64Array(maximumTerms);
const unit = new Float64Array(maximumTerms);

/** Half the window in units of x, so that its farthest sample keeps some weight. */
function reachOf(variable: Float64Array, first: number, last: number, at: number): number {
  return Math.max(at - variable[first]!, variable[last]! - at) * (1 + 1 / (last - first + 1));
}

/**
 * The rate at `at`.
 *
 * @param first,last samples of the window, both included
 * @param degree of the rate as a polynomial of x: 0, 1 or 2
 * @returns NaN when the window holds too few distinct samples
 */
export function rateFit(traces: Traces, first: number, last: number, at: number, degree: 0 | 1 | 2): number {
  const { time, amount, variable } = traces;
  const terms = degree + 2;
  if (last - first + 1 < terms) return NaN;
  const reach = degree === 0 ? 1 : reachOf(variable, first, last, at);
  if (!(reach > 0)) return NaN;
  const perReach = 1 / reach;
  const base = amount[first]!;
  // Written out term by term: this loop is where a comparison spends its time.
  let s00 = 0, s01 = 0, s02 = 0, s03 = 0, s11 = 0, s12 = 0, s13 = 0, s22 = 0, s23 = 0, s33 = 0; // prettier-ignore
  let m0 = 0,
    m1 = 0,
    m2 = 0,
    m3 = 0;
  let c1 = 0,
    c2 = 0,
    c3 = 0;
  let before = time[first]!;
  let zBefore = (variable[first]! - at) * perReach;
  for (let index = first; index <= last; index++) {
    const z = (variable[index]! - at) * perReach;
    const half = 0.5 * (time[index]! - before);
    before = time[index]!;
    c1 += 2 * half;
    c2 += half * (z + zBefore);
    c3 += half * (z * z + zBefore * zBefore);
    zBefore = z;
    const square = z * z;
    const weight = degree === 0 ? 1 : square < 1 - 1e-6 ? 1 - square : 1e-6;
    const y = amount[index]! - base;
    const w1 = weight * c1;
    const w2 = weight * c2;
    const w3 = weight * c3;
    s00 += weight;
    s01 += w1;
    s02 += w2;
    s03 += w3;
    s11 += w1 * c1;
    s12 += w1 * c2;
    s13 += w1 * c3;
    s22 += w2 * c2;
    s23 += w2 * c3;
    s33 += w3 * c3;
    m0 += weight * y;
    m1 += w1 * y;
    m2 += w2 * y;
    m3 += w3 * y;
  }
  // One by one: handing them over as a list takes longer than the sums.
  normal[0] = s00;
  normal[1] = normal[4] = s01;
  normal[2] = normal[8] = s02;
  normal[3] = normal[12] = s03;
  normal[5] = s11;
  normal[6] = normal[9] = s12;
  normal[7] = normal[13] = s13;
  normal[10] = s22;
  normal[11] = normal[14] = s23;
  normal[15] = s33;
  moment[0] = m0;
  moment[1] = m1;
  moment[2] = m2;
  moment[3] = m3;
  return solveInPlace(normal, maximumTerms, terms, moment, leastPivot) ? moment[1]! : NaN;
}

/** What turns samples into the rate: dot with the amounts from `first` on. */
export interface RateWeights {
  first: number;
  weights: Float64Array;
}

/** The weights that `rateFit` amounts to: what the noise of samples does to a rate can be worked out from them. */
export function rateWeights(
  traces: Traces,
  first: number,
  last: number,
  at: number,
  degree: 0 | 1 | 2,
): RateWeights | undefined {
  const { time, variable } = traces;
  const terms = degree + 2;
  const count = last - first + 1;
  const reach = degree === 0 ? 1 : reachOf(variable, first, last, at);
  if (count < terms || !(reach > 0)) return undefined;
  const columns = new Float64Array(count * maximumTerms);
  const kernel = new Float64Array(count);
  normal.fill(0);
  let zBefore = (variable[first]! - at) / reach;
  for (let index = 0; index < count; index++) {
    const z = (variable[first + index]! - at) / reach;
    const half = index === 0 ? 0 : 0.5 * (time[first + index]! - time[first + index - 1]!);
    const row = index * maximumTerms;
    const earlier = Math.max(0, row - maximumTerms);
    columns[row] = 1;
    columns[row + 1] = columns[earlier + 1]! + 2 * half;
    columns[row + 2] = columns[earlier + 2]! + half * (z + zBefore);
    columns[row + 3] = columns[earlier + 3]! + half * (z * z + zBefore * zBefore);
    zBefore = z;
    const weight = degree === 0 ? 1 : Math.max(1 - z * z, 1e-6);
    kernel[index] = weight;
    for (let p = 0; p < maximumTerms; p++) {
      for (let q = 0; q < maximumTerms; q++)
        normal[p * maximumTerms + q]! += weight * columns[row + p]! * columns[row + q]!;
    }
  }
  unit.fill(0);
  unit[1] = 1;
  if (!solveInPlace(normal, maximumTerms, terms, unit, leastPivot)) return undefined;
  const weights = new Float64Array(count);
  for (let index = 0; index < count; index++) {
    let sum = 0;
    for (let p = 0; p < terms; p++) sum += unit[p]! * columns[index * maximumTerms + p]!;
    weights[index] = kernel[index]! * sum;
  }
  return { first, weights };
}
