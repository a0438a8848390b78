import { expect, test } from '@jest/globals';
import { blockAverage } from './block-average.ts';

const at = (rateHz: number, count: number) => Float64Array.from({ length: count }, (_, index) => 5 + index / rateHz);

test('a fast recording becomes one of at most the rate asked for, each row the mean of its block', () => {
  const time = at(1000, 1001);
  const { time: rows, series } = blockAverage(time, [time.map((s) => 3 * s)], 200);
  expect(rows).toHaveLength(200);
  expect(rows[0]).toBeCloseTo(5.002, 9);
  expect(rows[1]! - rows[0]!).toBeCloseTo(0.005, 9);
  expect(series[0]![7]).toBeCloseTo(3 * rows[7]!, 9);
});

test('what is slow enough is left as it is, and so is what has no duration', () => {
  for (const time of [at(399, 400), at(100, 50), Float64Array.of(5), Float64Array.of(5, 5, 5), new Float64Array(0)]) {
    const found = blockAverage(time, [time], 200);
    expect(found.time).toBe(time);
    expect(found.series[0]).toBe(time);
  }
});

test('what was not read counts for nothing in its block, and a block without a reading reads nothing', () => {
  const time = at(400, 9);
  const values = Float64Array.of(1, NaN, NaN, NaN, 3, 5, 6, 8, 100);
  expect([...blockAverage(time, [values], 200).series[0]!]).toEqual([1, NaN, 4, 7]);
});
