import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { differenceDigits } from './difference-digits.ts';

test('what is read says of zero what is so, with one more digit where the usual ones hide it', () => {
  expect(differenceDigits(-0.5, 0.45, 1)).toBe(2);
  expect(differenceDigits(0.45, 0.46, 1)).toBe(1);
  expect(differenceDigits(2.2, 0.7, 1)).toBe(1);
  expect(differenceDigits(0.548, 0.552, 1)).toBe(1);
  // Read as it stood, 0.6 ± 0.5 would be a gain.
  expect(differenceDigits(0.5501, 0.5502, 1)).toBe(1);
  expect(differenceDigits(3, NaN, 1)).toBe(1);
  const size = fc.double({ min: 0, max: 20, noNaN: true });
  fc.assert(
    fc.property(size, size, fc.integer({ min: 0, max: 2 }), (difference, half, digits) => {
      fc.pre(Math.abs(difference - half) > 1.01 * 10 ** -(digits + 2));
      const told = differenceDigits(difference, half, digits);
      expect(told).toBeGreaterThanOrEqual(digits);
      expect(Number(difference.toFixed(told)) > Number(half.toFixed(told))).toBe(difference > half);
    }),
  );
});
