import { expect, test } from '@jest/globals';
import { paceOf } from './pace.ts';

const minutes = (...at: number[]) => at.map((minute) => minute * 60_000);

test('is the usual pause between runs, whatever their order; a lunch break is none', () => {
  expect(paceOf(minutes(0, 6, 12, 90, 95, 102))).toBe(360);
  expect(paceOf(minutes(12, 0, 6))).toBe(360);
});

test('is not known from a run or two, nor from runs of several days', () => {
  expect(paceOf(minutes(0, 6))).toBeUndefined();
  expect(paceOf(minutes(0, 1500, 3000))).toBeUndefined();
  expect(paceOf([])).toBeUndefined();
});
