import { expect, test } from '@jest/globals';
import { chance, normal } from '../testing/chance.ts';
import { correlate, halvedAutocovariance, noiseAutocovariance } from './noise.ts';

const time = Float64Array.from({ length: 4000 }, (_, index) => index / 200);

/** Variance of a weighted sum, from an autocovariance. */
function varianceOf(autocovariance: Float64Array, weights: Float64Array): number {
  return correlate(autocovariance, weights).reduce((sum, value, index) => sum + value * weights[index]!, 0);
}

function noisy(seed: number, memory: number): Float64Array {
  const noise = normal(chance(seed));
  let state = 0;
  return time.map((at) => (state = memory * state + noise()) + 20 * at + 3 * at * at);
}

test.each([
  [0, 1],
  [0.4, 1 / (1 - 0.16)],
  [0.7, 1 / (1 - 0.49)],
])('noise of memory %d under a curve: its variance, and that of a mean of many samples', (memory, variance) => {
  const found = [1, 2, 3, 4].map((seed) => noiseAutocovariance(time, noisy(seed, memory)));
  const mean = (make: (autocovariance: Float64Array) => number) =>
    found.reduce((sum, autocovariance) => sum + make(autocovariance), 0) / found.length;
  expect(mean((gamma) => gamma[0]!) / variance).toBeGreaterThan(0.9);
  expect(mean((gamma) => gamma[0]!) / variance).toBeLessThan(1.1);
  // A mean of a hundred samples scatters as the long-run variance says.
  const weights = new Float64Array(100).fill(1 / 100);
  const truth = 1 / (1 - memory) ** 2 / 100;
  expect(mean((gamma) => varianceOf(gamma, weights)) / truth).toBeGreaterThan(0.75);
  expect(mean((gamma) => varianceOf(gamma, weights)) / truth).toBeLessThan(1.3);
});

test('noise averaged in pairs: half the variance when white, the same sum of covariances always', () => {
  expect(Array.from(halvedAutocovariance(Float64Array.of(1, 0, 0, 0)))).toEqual([0.5, 0]);
  const gamma = noiseAutocovariance(time, noisy(9, 0.6));
  const halved = halvedAutocovariance(gamma);
  const longRun = (values: Float64Array) => values.reduce((sum, value, lag) => sum + (lag ? 2 : 1) * value, 0);
  expect((2 * longRun(halved)) / longRun(gamma)).toBeCloseTo(1, 1);
});

test('the shape of a pull of two seconds is not taken for noise', () => {
  const short = time.subarray(0, 400);
  // An impulse that bends as in a quick pull: a feature of a third of a second, seventy-five times the noise.
  const shape = short.map((at) => 40 * at + 0.15 * Math.sin(2 * Math.PI * at * 1.5));
  const found = [1, 2, 3, 4, 5, 6].map((seed) => {
    const noise = normal(chance(seed));
    return noiseAutocovariance(
      short,
      shape.map((value) => value + 0.002 * noise()),
    )[0]!;
  });
  const variance = found.reduce((sum, value) => sum + value, 0) / found.length;
  // The blocks of a second that were laid over it read a hundred and fifty times as much.
  expect(variance / 0.002 ** 2).toBeLessThan(2);
  expect(variance / 0.002 ** 2).toBeGreaterThan(0.7);
});
