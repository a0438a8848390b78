import { sampleAt } from '../numerics/sample-at.ts';
import { autoregressiveCovariance, correlate, longRunOf } from '../smoothing/noise.ts';
import { inverted, product } from '../numerics/inverse.ts';

/** A fitted linear model. */
export interface LinearFit {
  coefficients: number[];
  /** Of the coefficients, with the residuals as correlated as they are. */
  covariance: number[][];
  /** Standard deviation of the residuals. */
  residual: number;
  /** Independent residuals less coefficients. */
  df: number;
}

// Set by bench/coverage.ts: the loss of coasts whose reading wanders for up to a second.
/** The residuals' correlation is modelled over this time, s, and continued to here. */
const memoryS = 0.6;
const continuedS = 6;

/**
 * Ordinary least squares with the coefficients' covariance from correlated
 * residuals: (X′X)⁻¹·X′ΓX·(X′X)⁻¹, Γ by an autoregressive model of the residuals.
 * Source: Brockwell and Davis, Time Series: Theory and Methods, 2nd ed. (1991), §8.1;
 * for white residuals this is the textbook's σ²(X′X)⁻¹.
 *
 * @param columns of the model, each of y's length
 * @param time s, of the same length, nearly even
 * @returns undefined when the columns are not independent
 */
export function leastSquares(
  columns: readonly Float64Array[],
  y: Float64Array,
  time: Float64Array,
): LinearFit | undefined {
  const terms = columns.length;
  const count = y.length;
  if (count <= terms + 1) return undefined;
  // Columns of one size keep the normal equations sound.
  const scale = columns.map((column) => Math.sqrt(column.reduce((sum, value) => sum + value * value, 0) / count) || 1);
  const dots = (a: Float64Array, b: Float64Array) =>
    a.reduce((sum, value, index) => sum + value * sampleAt(b, index), 0);
  const normal = columns.map((a, i) => columns.map((b, j) => dots(a, b) / scale[i]! / scale[j]!));
  const inverse = inverted(normal);
  if (!inverse) return undefined;
  const moments = columns.map((column, i) => dots(column, y) / scale[i]!);
  const scaled = inverse.map((row) => row.reduce((sum, value, j) => sum + value * moments[j]!, 0));
  const residuals = y.map(
    (value, index) => value - scaled.reduce((sum, c, i) => sum + (c * sampleAt(columns[i]!, index)) / scale[i]!, 0),
  );
  const variance = dots(residuals, residuals) / (count - terms);
  const rate = (count - 1) / (sampleAt(time, count - 1) - sampleAt(time, 0));
  const memory = Math.max(2, Math.min(Math.round(memoryS * rate), Math.floor(count / 15)));
  const lags = Math.min(Math.round(continuedS * rate), count - 1);
  const gamma = autoregressiveCovariance(residuals, memory, lags, orthonormal(columns));
  const passed = columns.map((column) => correlate(gamma, column));
  const middle = columns.map((a, i) => passed.map((b, j) => dots(a, b) / scale[i]! / scale[j]!));
  const covariance = product(product(inverse, middle), inverse).map((row, i) =>
    row.map((value, j) => value / scale[i]! / scale[j]!),
  );
  const independent = Math.min(
    count,
    (count * sampleAt(gamma, 0)) / Math.max(longRunOf(gamma), sampleAt(gamma, 0) / 100),
  );
  return {
    coefficients: scaled.map((value, i) => value / scale[i]!),
    covariance,
    residual: Math.sqrt(variance),
    df: Math.max(1, Math.min(count, independent) - terms),
  };
}

/** The columns' span as orthonormal vectors (Gram–Schmidt). */
function orthonormal(columns: readonly Float64Array[]): Float64Array[] {
  const basis: Float64Array[] = [];
  for (const column of columns) {
    const vector = column.slice();
    for (const earlier of [...basis, ...basis]) {
      let along = 0;
      for (let at = 0; at < vector.length; at++) along += sampleAt(vector, at) * sampleAt(earlier, at);
      for (let at = 0; at < vector.length; at++) vector[at]! -= along * sampleAt(earlier, at);
    }
    const length = Math.sqrt(vector.reduce((sum, value) => sum + value * value, 0));
    if (length > 0) basis.push(vector.map((value) => value / length));
  }
  return basis;
}
