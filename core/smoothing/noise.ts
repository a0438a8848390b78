import { sampleAt } from '../numerics/sample-at.ts';
import { inner, orthonormal, subtract } from '../numerics/orthonormal.ts';
import { seriesOf } from '../numerics/picked.ts';

// Set by bench/accuracy.ts: the error against known truths, mean and worst.
/** Length of the blocks in which a trace is compared with a polynomial, s, and the least samples in one. */
const blockS = 1;
const leastBlock = 20;
const degree = 4;
/** A short trace has so many blocks at least, as far as its samples go: a polynomial over much of it would take its shape for noise. */
const leastBlocks = 5;
/** The noise model looks back so far, s, and over at least this many samples; its covariances are continued to here, s. */
const memoryS = 0.04;
const leastMemory = 2;
const continuedS = 0.3;

/**
 * Autocovariance of a trace's noise. A polynomial of degree 4 is taken out of
 * each block of about a second; an autoregressive model of the residuals gives
 * the autocovariance. The polynomials also remove part of the noise, which is
 * corrected for. Noise slower than about a quarter of a second cannot be told
 * from the signal and is not counted.
 * Source: Yule–Walker equations by Levinson's recursion; Brockwell and Davis,
 * Time Series: Theory and Methods, 2nd ed. (1991), §5.2 and §8.1.
 *
 * @param time s, rising, nearly even
 * @param breaks samples at which the signal itself jumps or bends, rising: no polynomial is laid over one
 * @returns element k: covariance of residuals k samples apart, in the trace's unit squared
 */
export function noiseAutocovariance(
  time: Float64Array,
  values: Float64Array,
  breaks: readonly number[] = [],
): Float64Array {
  const count = time.length;
  const rate = count > 1 ? (count - 1) / (time[count - 1]! - time[0]!) : 1;
  const memory = Math.max(leastMemory, Math.round(memoryS * rate));
  const lags = Math.max(memory + 1, Math.round(continuedS * rate));
  const given = shortAutocovariance(time, values, blocksOf(time.length, rate, breaks), memory);
  return continued(given, lags);
}

/** Blocks of about a second between the breaks; what is too short between two is left out, unless all is. */
function blocksOf(count: number, rate: number, breaks: readonly number[]): (readonly [number, number])[] {
  const block = Math.max(leastBlock, Math.round(Math.min(blockS * rate, count / leastBlocks)));
  const ends = [0, ...breaks, count];
  const between = ends.slice(1).map((end, index) => [ends[index]!, end] as const);
  const long = between.filter(([from, to]) => to - from >= leastBlock);
  return (long.length > 0 ? long : [[0, count] as const]).flatMap(([from, to]) => {
    const blocks = Math.max(1, Math.floor((to - from) / block));
    const edge = (index: number) => from + Math.floor((index * (to - from)) / blocks);
    return Array.from({ length: blocks }, (_, index) => [edge(index), edge(index + 1)] as const);
  });
}

/** Autocovariances up to a few samples apart, from the blocks' residuals. */
function shortAutocovariance(
  time: Float64Array,
  values: Float64Array,
  blocks: readonly (readonly [number, number])[],
  memory: number,
): Float64Array {
  const measured = new Float64Array(memory + 1);
  let taken = new Float64Array(memory + 1);
  let samples = 0;
  blocks.forEach(([from, to], index) => {
    const { residual, basis } = withoutPolynomial(time.subarray(from, to), values.subarray(from, to));
    samples += to - from;
    for (let lag = 0; lag <= memory; lag++) measured[lag]! += lagged(residual, lag);
    // Nearly even samples: one block's polynomials stand for all.
    if (index === 0)
      taken = measured.map((_, lag) => basis.reduce((sum, vector) => sum + lagged(vector, lag), 0) / (to - from));
  });
  for (let lag = 0; lag <= memory; lag++) measured[lag]! /= samples;
  // The polynomials take a smooth part of the noise: about its long-run variance times their own covariance.
  let measuredSum = measured[0]!;
  let takenSum = taken[0]!;
  for (let lag = 1; lag <= memory; lag++) {
    measuredSum += 2 * measured[lag]!;
    takenSum += 2 * taken[lag]!;
  }
  const longRun = Math.max(0, measuredSum) / Math.max(0.2, 1 - takenSum);
  return measured.map((value, lag) => value + longRun * taken[lag]!);
}

/** Continues autocovariances by the autoregressive model that they define. */
function continued(given: Float64Array, lags: number): Float64Array {
  const order = given.length - 1;
  const result = new Float64Array(lags + 1);
  if (!(given[0]! > 0)) return result;
  let weights: number[] = [];
  let left = given[0]!;
  for (let step = 1; step <= order; step++) {
    let reflection = given[step]!;
    weights.forEach((weight, index) => (reflection -= weight * given[step - 1 - index]!));
    // A model at the edge of stability would never forget.
    reflection = Math.max(-0.98, Math.min(0.98, reflection / left));
    weights = [...weights.map((weight, index) => weight - reflection * weights[step - 2 - index]!), reflection];
    left *= 1 - reflection * reflection;
  }
  result.set(given.subarray(0, Math.min(given.length, lags + 1)));
  for (let lag = order + 1; lag <= lags; lag++) {
    weights.forEach((weight, index) => (result[lag]! += weight * result[lag - 1 - index]!));
  }
  return result;
}

/**
 * Autocovariance of the noise that residuals of a fit are left of, by an autoregressive model of them. What the fit
 * took of slow noise is given back: about its long-run variance times the covariance of the fitted vectors.
 * @param memory samples that the model looks back over
 * @param lags samples that it is continued to
 * @param fitted orthonormal vectors that the residuals are free of, each of their length
 */
export function autoregressiveCovariance(
  residuals: Float64Array,
  memory: number,
  lags: number,
  fitted: readonly Float64Array[],
): Float64Array {
  const share = (of: Float64Array, lag: number) => lagged(of, lag) / residuals.length;
  const measured = seriesOf(memory + 1, (lag) => share(residuals, lag));
  const taken = seriesOf(memory + 1, (lag) => fitted.reduce((sum, vector) => sum + share(vector, lag), 0));
  let found = continued(measured, lags);
  // The long-run variance is the found noise's own, so it settles in a few rounds.
  for (let round = 0; round < 3; round++) {
    const longRun = longRunOf(found);
    found = continued(
      measured.map((value, lag) => value + longRun * sampleAt(taken, lag)),
      lags,
    );
  }
  return found;
}

/** How many independent samples so many of this autocovariance are worth. */
export function independentIn(autocovariance: Float64Array, count: number): number {
  const longRun = longRunOf(autocovariance);
  const alone = sampleAt(autocovariance, 0);
  return longRun > alone ? (count * alone) / longRun : count;
}

/** The sum of a series' autocovariances over all lags, either way: what its mean scatters by, times its length. */
function longRunOf(autocovariance: Float64Array): number {
  let sum = sampleAt(autocovariance, 0);
  for (let lag = 1; lag < autocovariance.length; lag++) sum += 2 * sampleAt(autocovariance, lag);
  return Math.max(0, sum);
}

/** Sum of products of elements so many places apart. */
function lagged(values: Float64Array, lag: number): number {
  let sum = 0;
  for (let at = lag; at < values.length; at++) sum += values[at]! * values[at - lag]!;
  return sum;
}

/** Residuals against a polynomial, and the orthonormal basis that they are free of. */
function withoutPolynomial(time: Float64Array, values: Float64Array) {
  const residual = values.slice();
  const middle = (time[0]! + time[time.length - 1]!) / 2;
  const reach = (time[time.length - 1]! - time[0]!) / 2 || 1;
  const powers = Array.from({ length: degree + 1 }, (_, power) =>
    time.map((at) => (power === 0 ? 1 : powerOf((at - middle) / reach, power))),
  );
  const basis = orthonormal(powers);
  for (const vector of basis) subtract(residual, vector, inner(residual, vector));
  return { residual, basis };
}

/** A small whole power, without the cost of a general one. */
function powerOf(base: number, power: number): number {
  let result = base;
  for (let step = 1; step < power; step++) result *= base;
  return result;
}

/** The autocovariance of the same noise averaged in pairs of samples. */
export function halvedAutocovariance(autocovariance: Float64Array): Float64Array {
  const at = (lag: number) => autocovariance[Math.abs(lag)] ?? 0;
  return seriesOf(
    Math.max(1, autocovariance.length >> 1),
    (lag) => (at(2 * lag - 1) + 2 * at(2 * lag) + at(2 * lag + 1)) / 4,
  );
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
