import { describe, expect, test } from '@jest/globals';
import { quantile } from 'd3-array';
import fc from 'fast-check';
import { Matrix, solve } from 'ml-matrix';
import { rateFit } from '../smoothing/rate-fit.ts';
import { inverted, product } from './inverse.ts';
import { firstNotBelow, greatestAt, interpolate, interpolateAll } from './interpolation.ts';
import { pickedAt, seriesOf } from './picked.ts';
import { meanOf, scatterOf } from './mean.ts';
import { medianOf, quantileOf } from './quantile.ts';
import { fallingRoot } from './root.ts';
import { solveInPlace } from './small-system.ts';

// Zero has one sign here: `toBe` tells -0 from 0, and which of the two sorts first is of no matter.
const number = fc.double({ min: -1e6, max: 1e6, noNaN: true }).map((value) => value + 0);
const some = fc.array(number, { minLength: 1, maxLength: 40 });

describe('order and mean', () => {
  test('half of the values lie at or below the median, half at or above; of two it is the middle', () => {
    fc.assert(
      fc.property(some, (values) => {
        const median = medianOf(values);
        expect(values.filter((value) => value <= median).length * 2).toBeGreaterThanOrEqual(values.length);
        expect(values.filter((value) => value >= median).length * 2).toBeGreaterThanOrEqual(values.length);
      }),
    );
    expect(medianOf([1, 4])).toBe(2.5);
    expect(medianOf([1, NaN, 4, 9])).toBe(4);
    expect(medianOf([NaN])).toBeNaN();
  });

  test('quantiles rise from the least to the greatest, and shift and scale with the values', () => {
    fc.assert(
      fc.property(some, fc.double({ min: 0, max: 1, noNaN: true }), (values, share) => {
        expect(quantileOf(values, share)).toBeCloseTo(quantile(values, share)!, 6);
        expect(quantileOf(values, 0)).toBe(Math.min(...values));
        expect(quantileOf(values, 1)).toBe(Math.max(...values));
        expect(
          quantileOf(
            values.map((value) => 3 * value + 2),
            share,
          ),
        ).toBeCloseTo(3 * quantileOf(values, share) + 2, 4);
      }),
    );
  });

  test('quantiles of long lists, alike values among them, are those of a library that sorts', () => {
    const long = fc.array(fc.integer({ min: -50, max: 50 }), { minLength: 200, maxLength: 900 });
    fc.assert(
      fc.property(long, fc.double({ min: 0, max: 1, noNaN: true }), (values, share) => {
        for (const list of [values, [...values].sort((a, b) => a - b), [...values].sort((a, b) => b - a)])
          expect(quantileOf(list, share)).toBeCloseTo(quantile(list, share)!, 9);
      }),
    );
  });

  test('a mean is NaN where a value is missing; the scatter about it is least', () => {
    expect(meanOf([])).toBeNaN();
    expect(meanOf([1, NaN])).toBeNaN();
    fc.assert(
      fc.property(some, number, (values, elsewhere) => {
        const about = values.reduce((sum, value) => sum + (value - elsewhere) ** 2, 0);
        expect(scatterOf(values)).toBeLessThanOrEqual(about * (1 + 1e-9) + 1e-6);
      }),
    );
  });
});

test('interpolation meets every point, keeps the ends, and finds the first place not below', () => {
  const rising = fc
    .uniqueArray(fc.integer({ min: -1000, max: 1000 }), { minLength: 2, maxLength: 30 })
    .map((list) => Float64Array.from(list.sort((a, b) => a - b)));
  fc.assert(
    fc.property(rising, number, (x, target) => {
      const y = x.map((value) => 2 * value - 7);
      const clamped = Math.min(Math.max(target, x[0]!), x.at(-1)!);
      expect(interpolate(x, y, target)).toBeCloseTo(2 * clamped - 7, 6);
      const at = firstNotBelow(x, target);
      expect(at === x.length || x[at]! >= target).toBe(true);
      expect(at === 0 || x[at - 1]! < target).toBe(true);
    }),
  );
  expect(greatestAt(Float64Array.of(NaN, 1, 3, 3, NaN))).toBe(2);
});

test('many targets at once, rising or not, give what each gives by itself', () => {
  const rising = fc
    .uniqueArray(fc.integer({ min: -1000, max: 1000 }), { minLength: 1, maxLength: 30 })
    .map((list) => Float64Array.from(list.sort((a, b) => a - b)));
  const targets = fc.array(fc.oneof(fc.double({ min: -1200, max: 1200 }), fc.integer({ min: -1000, max: 1000 })), {
    maxLength: 60,
  });
  fc.assert(
    fc.property(rising, targets, fc.boolean(), (x, list, sorted) => {
      const asked = Float64Array.from(sorted ? list.sort((a, b) => a - b) : list);
      const y = x.map((value) => value * value - 3);
      expect(interpolateAll(x, y, asked)).toEqual(asked.map((target) => interpolate(x, y, target)));
    }),
  );
});

test('a series is made of its indices, and picked from by places', () => {
  const squares = seriesOf(5, (index) => index * index);
  expect(squares).toEqual(Float64Array.of(0, 1, 4, 9, 16));
  expect(pickedAt(squares, [4, 0, 4])).toEqual(Float64Array.of(16, 0, 16));
  expect(seriesOf(-2, () => 1)).toHaveLength(0);
});

describe('matrices and roots', () => {
  test('an inverse times its matrix is the unit matrix; nearly dependent columns have none', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: -3, max: 3, noNaN: true }), { minLength: 9, maxLength: 9 }), (values) => {
        const rows = [0, 1, 2].map((row) =>
          values.slice(3 * row, 3 * row + 3).map((value, column) => value + (row === column ? 10 : 0)),
        );
        const unit = product(inverted(rows)!, rows);
        unit.forEach((row, i) => row.forEach((value, j) => expect(value).toBeCloseTo(Number(i === j), 9)));
      }),
    );
    expect(
      inverted([
        [1, 2],
        [2, 4 + 1e-14],
      ]),
    ).toBeUndefined();
  });

  test('the root of a falling line is found wherever it lies', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.01, max: 1e5, noNaN: true }), (root) => {
        expect(fallingRoot((x) => root - x, 0, 1)).toBeCloseTo(root, 6);
      }),
    );
  });

  test('a small system solved in place is the library’s solution; a singular one is refused', () => {
    const values = fc.array(fc.double({ min: -5, max: 5, noNaN: true }), { minLength: 20, maxLength: 20 });
    fc.assert(
      fc.property(values, fc.integer({ min: 1, max: 4 }), (numbers, terms) => {
        const rows = Array.from({ length: terms }, (_, row) =>
          Array.from({ length: terms }, (_, column) => numbers[4 * row + column]! + (row === column ? 25 : 0)),
        );
        const side = Float64Array.from(numbers.slice(16, 16 + terms));
        const expected = solve(new Matrix(rows), Matrix.columnVector([...side])).to1DArray();
        const matrix = new Float64Array(20);
        rows.forEach((row, at) => matrix.set(row, 5 * at));
        expect(solveInPlace(matrix, 5, terms, side, 1e-12)).toBe(true);
        expected.forEach((value, at) => expect(side[at]).toBeCloseTo(value, 9));
      }),
    );
    expect(solveInPlace(Float64Array.of(1, 2, 2, 4), 2, 2, Float64Array.of(1, 1), 1e-12)).toBe(false);
  });

  test('the fit in the hot loop is the library’s weighted least squares', () => {
    const time = Float64Array.from({ length: 60 }, (_, index) => index / 50 + 0.003 * Math.sin(index));
    const variable = time.map((at) => 2000 + 800 * at + 60 * at * at);
    const amount = time.map((at, index) => 150 * at - 9 * at ** 2 + 0.02 * Math.cos(7 * index));
    const [first, last, at] = [5, 54, 2500];
    const reach = Math.max(at - variable[first]!, variable[last]! - at) * (1 + 1 / (last - first + 1));
    const rows: number[][] = [];
    const sides: number[][] = [];
    const sums = [0, 0, 0];
    for (let index = first; index <= last; index++) {
      const z = (variable[index]! - at) / reach;
      if (index > first) {
        const before = (variable[index - 1]! - at) / reach;
        const half = (time[index]! - time[index - 1]!) / 2;
        [1, 2, 3].forEach((_, power) => (sums[power]! += half * (z ** power + before ** power)));
      }
      const root = Math.sqrt(1 - z * z);
      rows.push([1, ...sums].map((value) => value * root));
      sides.push([root * (amount[index]! - amount[first]!)]);
    }
    const expected = solve(new Matrix(rows), new Matrix(sides)).get(1, 0);
    expect(rateFit({ time, amount, variable }, first, last, at, 2)).toBeCloseTo(expected, 6);
  });
});
