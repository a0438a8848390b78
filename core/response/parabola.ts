/** y = a + b·x + c·x², fitted by least squares about the middle of the levels, with what is needed for intervals. */
export interface Quadratic {
  middle: number;
  coefficients: readonly [number, number, number];
  /** (X′X)⁻¹ for x taken about the middle. */
  inverse: readonly (readonly number[])[];
  /** Residual standard deviation and its degrees of freedom. */
  standardDeviation: number;
  df: number;
  /** Student's t for 95 %. */
  t: number;
}

/** Value of the parabola at a level, and the half width of the 95 % interval of its mean. */
export function valueAt(fit: Quadratic, x: number): { value: number; halfWidth: number } {
  const u = x - fit.middle;
  return combined(fit, [1, u, u * u]);
}

/** Slope at a level, and its 95 % half width. */
export function slopeAt(fit: Quadratic, x: number): { value: number; halfWidth: number } {
  return combined(fit, [0, 1, 2 * (x - fit.middle)]);
}

function combined({ coefficients, inverse, standardDeviation, t }: Quadratic, row: readonly [number, number, number]) {
  const value = row.reduce((sum, part, i) => sum + part * coefficients[i]!, 0);
  let variance = 0;
  row.forEach((a, i) => row.forEach((b, j) => (variance += a * b * inverse[i]![j]!)));
  return { value, halfWidth: t * standardDeviation * Math.sqrt(Math.max(0, variance)) };
}
