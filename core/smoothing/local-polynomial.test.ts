import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { dot, localFit, localWeights } from './local-polynomial.ts';
import { slopes } from './moving-fit.ts';
import { correlate, noiseAutocovariance } from './noise.ts';
import { chance, normal } from '../testing/generated-run.ts';

const coefficient = fc.double({ min: -5, max: 5, noNaN: true });

test('a cubic is returned exactly, value and slope, at even and uneven spacing', () => {
  fc.assert(
    fc.property(
      fc.tuple(coefficient, coefficient, coefficient, coefficient),
      fc.infiniteStream(fc.double({ min: 0.2, max: 1.8, noNaN: true })),
      fc.double({ min: 0.1, max: 0.9, noNaN: true }),
      ([a, b, c, d], gaps, where) => {
        let at = 0;
        const x = Float64Array.from({ length: 30 }, () => (at += 0.05 * (gaps.next().value as number)));
        const y = x.map((u) => a + b * u + c * u * u + d * u ** 3);
        const point = x[0]! + where * (x[29]! - x[0]!);
        const weights = localWeights(x, 0, 29, point, 3)!;
        expect(dot(weights.value, y, 0)).toBeCloseTo(a + b * point + c * point ** 2 + d * point ** 3, 6);
        expect(dot(weights.slope, y, 0)).toBeCloseTo(b + 2 * c * point + 3 * d * point ** 2, 5);
      },
    ),
  );
});

test('a fit without its weights is the same fit', () => {
  const noise = normal(chance(8));
  const x = Float64Array.from({ length: 40 }, (_, index) => index * 0.1 + 0.02 * Math.sin(index));
  const series = [x.map(() => noise()), x.map((at) => at ** 2 + noise())];
  for (const degree of [1, 2, 3]) {
    const weights = localWeights(x, 3, 33, 1.7, degree)!;
    for (const y of series) {
      const fit = localFit(x, y, 3, 33, 1.7, degree)!;
      expect(fit.value).toBeCloseTo(dot(weights.value, y, 3), 9);
      expect(fit.slope).toBeCloseTo(dot(weights.slope, y, 3), 8);
    }
  }
});

test('too few samples give no fit rather than a wild one', () => {
  expect(localWeights(Float64Array.of(0, 1, 2), 0, 2, 1, 3)).toBeUndefined();
  expect(localWeights(Float64Array.of(1, 1, 1, 1, 1), 0, 4, 1, 1)).toBeUndefined();
});

test('moving lines follow a line exactly and skip blanks', () => {
  const x = Float64Array.from({ length: 50 }, (_, index) => index * 0.1);
  const y = x.map((at, index) => (index === 20 ? NaN : 3 - 2 * at));
  const { value, slope } = slopes(x, y, 0.5);
  expect(value[20]).toBeCloseTo(3 - 2 * x[20]!, 9);
  expect(slope[35]).toBeCloseTo(-2, 9);
});

test('the autocovariance of correlated noise is found, and makes the variance of a mean', () => {
  const noise = normal(chance(4));
  const time = Float64Array.from({ length: 8000 }, (_, index) => index / 200);
  let state = 0;
  const values = time.map((at) => (state = 0.7 * state + noise()) + 20 * at);
  const found = noiseAutocovariance(time, values);
  const variance = 1 / (1 - 0.49);
  expect(found[0]! / variance).toBeGreaterThan(0.85);
  expect(found[0]! / variance).toBeLessThan(1.15);
  expect(found[1]! / found[0]!).toBeGreaterThan(0.6);
  const mean = new Float64Array(10).fill(1 / 10);
  const ofMean = dot(mean, correlate(found, mean), 0);
  expect(ofMean / (variance / 10)).toBeGreaterThan(2.5);
});
