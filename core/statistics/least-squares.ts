import { sampleAt } from '../numerics/sample-at.ts';
import { autoregressiveCovariance, correlate, independentIn } from '../smoothing/noise.ts';
import { inverted, product } from '../numerics/inverse.ts';
import { orthonormal } from '../numerics/orthonormal.ts';

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
  return {
    coefficients: scaled.map((value, i) => value / scale[i]!),
    covariance,
    residual: Math.sqrt(variance),
    df: Math.max(1, independentIn(gamma, count) - terms),
  };
}
