/**
 * Local polynomial regression: the weights that turn samples into the value
 * and the slope of a curve at one point.
 * Source: Fan and Gijbels, Local Polynomial Modelling and Its Applications (1996), ch. 3.
 */
export interface LocalWeights {
  /** Index of the first sample in the window. */
  first: number;
  /** Dot with the samples from `first` on: the value at the point. */
  value: Float64Array;
  /** Dot with the same samples: the slope at the point, per unit of x. */
  slope: Float64Array;
}

const maximumDegree = 4;
const size = maximumDegree + 1;

/**
 * Weights of a fit of `degree` around `at`, over the samples x[first…last]
 * (both included), with kernel (1 − u²), u the distance from the point in
 * units of the farther end.
 *
 * @param x rising, any unit
 * @returns undefined when the window holds too few distinct samples for the degree
 */
export function localWeights(
  x: Float64Array,
  first: number,
  last: number,
  at: number,
  degree: number,
): LocalWeights | undefined {
  const count = last - first + 1;
  if (count <= degree) return undefined;
  const reach = Math.max(at - x[first]!, x[last]! - at) * (1 + 1 / count);
  if (!(reach > 0)) return undefined;
  const terms = degree + 1;
  const powers = new Float64Array(2 * size);
  const kernel = new Float64Array(count);
  for (let index = 0; index < count; index++) {
    const u = (x[first + index]! - at) / reach;
    const weight = Math.max(1 - u * u, 1e-6);
    kernel[index] = weight;
    let power = weight;
    for (let term = 0; term < 2 * terms - 1; term++) {
      powers[term]! += power;
      power *= u;
    }
  }
  const normal = normalMatrix(powers, terms);
  const forValue = solve(normal, terms, 0);
  const forSlope = solve(normal, terms, 1);
  if (!forValue || !forSlope) return undefined;
  const value = new Float64Array(count);
  const slope = new Float64Array(count);
  for (let index = 0; index < count; index++) {
    const u = (x[first + index]! - at) / reach;
    let valueSum = 0;
    let slopeSum = 0;
    for (let term = terms - 1; term >= 0; term--) {
      valueSum = valueSum * u + forValue[term]!;
      slopeSum = slopeSum * u + forSlope[term]!;
    }
    value[index] = kernel[index]! * valueSum;
    slope[index] = (kernel[index]! * slopeSum) / reach;
  }
  return { first, value, slope };
}

/** Value and slope of a fitted curve at a point. */
export interface LocalFit {
  value: number;
  slope: number;
}

/**
 * The fit that `localWeights` would give, without making the weights: a small
 * part of the work where only the fit is wanted.
 *
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
  const normal = normalMatrix([p0, p1, p2, p3, p4, p5, p6], degree + 1);
  const forValue = solve(normal, degree + 1, 0);
  const forSlope = solve(normal, degree + 1, 1);
  if (!forValue || !forSlope) return undefined;
  const moments = Float64Array.of(m0, m1, m2, m3);
  return { value: dot(forValue, moments, 0), slope: dot(forSlope, moments, 0) / reach };
}

function normalMatrix(powers: ArrayLike<number>, terms: number): Float64Array {
  const normal = new Float64Array(size * size);
  for (let row = 0; row < terms; row++) {
    for (let column = 0; column < terms; column++) normal[row * size + column] = powers[row + column]!;
  }
  return normal;
}

/** Row `unit` of the inverse of a symmetric positive matrix, by Gaussian elimination with pivoting. */
function solve(matrix: Float64Array, terms: number, unit: number): Float64Array | undefined {
  const a = matrix.slice();
  const b = new Float64Array(terms);
  b[unit] = 1;
  for (let column = 0; column < terms; column++) {
    let pivot = column;
    for (let row = column + 1; row < terms; row++) {
      if (Math.abs(a[row * size + column]!) > Math.abs(a[pivot * size + column]!)) pivot = row;
    }
    if (Math.abs(a[pivot * size + column]!) < 1e-12) return undefined;
    if (pivot !== column) {
      for (let k = 0; k < terms; k++) {
        const kept = a[column * size + k]!;
        a[column * size + k] = a[pivot * size + k]!;
        a[pivot * size + k] = kept;
      }
      const kept = b[column]!;
      b[column] = b[pivot]!;
      b[pivot] = kept;
    }
    for (let row = column + 1; row < terms; row++) {
      const factor = a[row * size + column]! / a[column * size + column]!;
      for (let k = column; k < terms; k++) a[row * size + k]! -= factor * a[column * size + k]!;
      b[row]! -= factor * b[column]!;
    }
  }
  for (let row = terms - 1; row >= 0; row--) {
    for (let k = row + 1; k < terms; k++) b[row]! -= a[row * size + k]! * b[k]!;
    b[row]! /= a[row * size + row]!;
  }
  return b;
}

/** Sum of weights times the samples from `first` on. */
export function dot(weights: Float64Array, samples: Float64Array, first: number): number {
  let sum = 0;
  for (let index = 0; index < weights.length; index++) sum += weights[index]! * samples[first + index]!;
  return sum;
}
