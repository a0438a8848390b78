const size = 5;

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
  const normal = normalMatrix([p0, p1, p2, p3, p4, p5, p6], degree + 1);
  const forValue = solve(normal, degree + 1, 0);
  const forSlope = solve(normal, degree + 1, 1);
  if (!forValue || !forSlope) return undefined;
  const moments = Float64Array.of(m0, m1, m2, m3);
  return { value: dot(forValue, moments), slope: dot(forSlope, moments) / reach };
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

function dot(a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let index = 0; index < a.length; index++) sum += a[index]! * b[index]!;
  return sum;
}
