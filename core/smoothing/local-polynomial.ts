import { solveInPlace } from '../numerics/small-system.ts';

const mostTerms = 4;
/** A smaller pivot of the normal equations is none. */
const leastPivot = 1e-12;
/** Kept between fits: there are thousands of them in a run. */
const normal = new Float64Array(mostTerms * mostTerms);
const coefficients = new Float64Array(mostTerms);

/** Value and slope of a fitted curve at a point. */
export interface LocalFit {
  value: number;
  slope: number;
}

/**
 * Local polynomial regression: a fit of `degree` around `at`, over the samples
 * x[first…last] (both included), with kernel 1 − u², u the distance from the
 * point in units of the farther end.
 * Source: Fan and Gijbels, Local Polynomial Modelling and Its Applications (1996), ch. 3.
 *
 * @param x rising, any unit
 * @param y of x's length
 * @param degree at most 3
 * @returns undefined when the window holds too few distinct samples for the degree
 */
export function localFit(
  x: Float64Array,
  y: Float64Array,
  first: number,
  last: number,
  at: number,
  degree: number,
): LocalFit | undefined {
  const count = last - first + 1;
  if (count <= degree) return undefined;
  const reach = Math.max(at - x[first]!, x[last]! - at) * (1 + 1 / count);
  if (!(reach > 0)) return undefined;
  // Written out term by term: this loop is where a comparison spends its time.
  let p0 = 0,
    p1 = 0,
    p2 = 0,
    p3 = 0,
    p4 = 0,
    p5 = 0,
    p6 = 0;
  let m0 = 0,
    m1 = 0,
    m2 = 0,
    m3 = 0;
  const perReach = 1 / reach;
  for (let index = first; index <= last; index++) {
    const u = (x[index]! - at) * perReach;
    const height = y[index]!;
    const square = u * u;
    const weight = square < 1 - 1e-6 ? 1 - square : 1e-6;
    const w1 = weight * u;
    const w2 = weight * square;
    const w3 = w1 * square;
    p0 += weight;
    p1 += w1;
    p2 += w2;
    p3 += w3;
    p4 += w2 * square;
    p5 += w3 * square;
    p6 += w2 * square * square;
    m0 += weight * height;
    m1 += w1 * height;
    m2 += w2 * height;
    m3 += w3 * height;
  }
  const powers = [p0, p1, p2, p3, p4, p5, p6];
  const terms = degree + 1;
  for (let row = 0; row < terms; row++) {
    for (let column = 0; column < terms; column++) normal[row * mostTerms + column] = powers[row + column]!;
  }
  coefficients[0] = m0;
  coefficients[1] = m1;
  coefficients[2] = m2;
  coefficients[3] = m3;
  if (!solveInPlace(normal, mostTerms, terms, coefficients, leastPivot)) return undefined;
  return { value: coefficients[0], slope: degree > 0 ? coefficients[1] / reach : 0 };
}
