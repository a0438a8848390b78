/** Length of the blocks in which a trace is compared with a polynomial, s, and the least samples in one. */
const blockS = 1;
const leastBlock = 30;
const degree = 4;
/** Noise is taken as unrelated beyond this many samples. */
const lags = 30;

/**
 * How a trace's noise hangs together: the autocovariance of what remains
 * after a polynomial of degree 4 is taken out of blocks of about a second.
 * Slower noise than that cannot be told from the signal and is not counted.
 *
 * @returns element k: covariance of residuals k samples apart, in the trace's unit squared
 */
export function noiseAutocovariance(time: Float64Array, values: Float64Array): Float64Array {
  const count = time.length;
  const rate = count > 1 ? (count - 1) / (time[count - 1]! - time[0]!) : 1;
  const block = Math.max(leastBlock, Math.round(blockS * rate));
  const blocks = Math.max(1, Math.floor(count / block));
  const products = new Float64Array(lags + 1);
  const pairs = new Float64Array(lags + 1);
  for (let index = 0; index < blocks; index++) {
    const from = Math.floor((index * count) / blocks);
    const to = Math.floor(((index + 1) * count) / blocks);
    const residual = withoutPolynomial(time.subarray(from, to), values.subarray(from, to));
    for (let lag = 0; lag <= lags && lag < residual.length; lag++) {
      let sum = 0;
      for (let at = lag; at < residual.length; at++) sum += residual[at]! * residual[at - lag]!;
      products[lag]! += sum;
      // The polynomial's own freedom is taken from the count, so that the variance is not understated.
      pairs[lag]! += Math.max(1, residual.length - lag - degree - 1);
    }
  }
  return products.map((product, lag) => (pairs[lag]! > 0 ? (product / pairs[lag]!) * (1 - lag / (lags + 1)) : 0));
}

/** Residuals against a polynomial, by Gram–Schmidt on the powers of time. */
function withoutPolynomial(time: Float64Array, values: Float64Array): Float64Array {
  const residual = values.slice();
  const middle = (time[0]! + time[time.length - 1]!) / 2;
  const reach = (time[time.length - 1]! - time[0]!) / 2 || 1;
  const basis: Float64Array[] = [];
  for (let power = 0; power <= degree; power++) {
    const vector = time.map((at) => ((at - middle) / reach) ** power);
    for (const earlier of basis) subtract(vector, earlier, inner(vector, earlier));
    const length = Math.sqrt(inner(vector, vector));
    if (length < 1e-9) break;
    for (let index = 0; index < vector.length; index++) vector[index]! /= length;
    subtract(residual, vector, inner(residual, vector));
    basis.push(vector);
  }
  return residual;
}

function inner(a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let index = 0; index < a.length; index++) sum += a[index]! * b[index]!;
  return sum;
}

function subtract(from: Float64Array, vector: Float64Array, share: number): void {
  for (let index = 0; index < from.length; index++) from[index]! -= share * vector[index]!;
}

/** Γ·w for the band matrix of an autocovariance; w of any length. */
export function correlate(autocovariance: Float64Array, weights: Float64Array): Float64Array {
  const result = new Float64Array(weights.length);
  const reach = Math.min(autocovariance.length - 1, weights.length - 1);
  const nearest = autocovariance[0]!;
  for (let index = 0; index < weights.length; index++) result[index] = nearest * weights[index]!;
  for (let lag = 1; lag <= reach; lag++) {
    const covariance = autocovariance[lag]!;
    for (let index = lag; index < weights.length; index++) {
      result[index]! += covariance * weights[index - lag]!;
      result[index - lag]! += covariance * weights[index]!;
    }
  }
  return result;
}
