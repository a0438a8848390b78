import { expect, test } from '@jest/globals';
import { readRpmRange } from './rpm-range.ts';

test.each(['3,000–5,600', '3000-5600', '3000 to 5600', ' 3 000 – 5 600 rpm '])('%j is 3000 to 5600', (text) => {
  expect(readRpmRange(text)).toEqual({ fromRpm: 3000, toRpm: 5600 });
});

test.each(['', '3000', '5600-3000', '3000-3000', '-3000-5600', 'low to high', '0-5000'])('%j is no span', (text) => {
  expect(readRpmRange(text)).toBeUndefined();
});
