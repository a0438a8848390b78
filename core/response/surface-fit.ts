import { inverted } from '../numerics/inverse.ts';
import { studentT } from '../statistics/student-t.ts';

/** A point of the plane of two items, each in its own usual steps from where it began. */
export interface PlanePoint {
  u: number;
  v: number;
}

/** What was read at a point. */
export interface Observation extends PlanePoint {
  value: number;
}

/** What is believed of a surface before anything is read: mean and standard deviation of 1, u, v, u², v², uv. */
export interface SurfacePrior {
  mean: readonly number[];
  standardDeviation: readonly number[];
}

/** A quadratic surface with its uncertainty. */
export interface Surface {
  coefficients: readonly number[];
  covariance: readonly (readonly number[])[];
  /** For intervals: of the noise's own estimate. */
  t: number;
}

const terms = ({ u, v }: PlanePoint): readonly number[] => [1, u, v, u * u, v * v, u * v];
const count = 6;

/**
 * A quadratic surface over two items by Bayesian least squares: with few points
 * it is mostly what usual surfaces are like, with many what was read.
 * Source: Gelman et al., Bayesian Data Analysis, 3rd ed. (2013), §14.8; the
 * response surface is that of Box and Wilson, J. R. Stat. Soc. B 13 (1951) 1.
 *
 * @param noise standard deviation of one reading
 * @param df how well that is known
 */
export function fitSurface(
  observations: readonly Observation[],
  prior: SurfacePrior,
  noise: number,
  df: number,
): Surface {
  const precision = Array.from({ length: count }, (_, i) =>
    Array.from({ length: count }, (_, j) => (i === j ? 1 / prior.standardDeviation[i]! ** 2 : 0)),
  );
  const side = prior.mean.map((mean, i) => mean / prior.standardDeviation[i]! ** 2);
  for (const { value, ...point } of observations) {
    const row = terms(point);
    for (let i = 0; i < count; i++) {
      side[i]! += (row[i]! * value) / noise ** 2;
      for (let j = 0; j < count; j++) precision[i]![j]! += (row[i]! * row[j]!) / noise ** 2;
    }
  }
  const covariance = inverted(precision);
  if (!covariance) throw new Error('the prior leaves no direction open');
  const coefficients = covariance.map((row) => row.reduce((sum, value, j) => sum + value * side[j]!, 0));
  return { coefficients, covariance, t: studentT(0.95, df) };
}

/** Value of a surface at a point, and its standard deviation. */
export function surfaceAt({ coefficients, covariance }: Surface, point: PlanePoint): { value: number; sd: number } {
  const row = terms(point);
  return { value: inner(row, coefficients), sd: Math.sqrt(Math.max(0, form(row, covariance))) };
}

/** Value at a point less that at another, and its standard deviation: they are known together. */
export function differenceBetween(
  { coefficients, covariance }: Surface,
  point: PlanePoint,
  from: PlanePoint,
): { value: number; sd: number } {
  const there = terms(from);
  const row = terms(point).map((value, at) => value - there[at]!);
  return { value: inner(row, coefficients), sd: Math.sqrt(Math.max(0, form(row, covariance))) };
}

function inner(a: readonly number[], b: readonly number[]): number {
  let sum = 0;
  for (let index = 0; index < count; index++) sum += a[index]! * b[index]!;
  return sum;
}

function form(row: readonly number[], matrix: readonly (readonly number[])[]): number {
  let sum = 0;
  for (let i = 0; i < count; i++) for (let j = 0; j < count; j++) sum += row[i]! * row[j]! * matrix[i]![j]!;
  return sum;
}
