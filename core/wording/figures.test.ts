import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { niceRange } from '../scene/nice-range.ts';
import { positionOfLetter, setupColour, setupDash } from '../scene/setup-look.ts';
import { setupLetter } from '../setup/letter.ts';
import { shareWords } from './plane-words.ts';
import { formatPower, formatRpm, formatTenths, formatTorque, formatWhole, signed } from './figures.ts';

test('figures are written with sensible digits, a true minus and no minus nought', () => {
  expect(formatPower(97.849, 'kW')).toBe('97.8');
  expect(formatPower(100, 'hp')).toBe('134.1');
  expect(formatTorque(-3.25, 'N·m')).toBe('−3.3');
  expect(formatTenths(-0.04)).toBe('0.0');
  expect(formatWhole(-0.2)).toBe('0');
  expect(formatRpm(5184)).toBe('5,180');
  expect([2.24, -2.24, 0.01].map((value) => signed(formatTenths(value)))).toEqual(['+2.2', '−2.2', '0.0']);
});

test('a share and its interval are written by the rule of every difference', () => {
  expect(shareWords(0.0123, 0.0041)).toBe('+1.2 ± 0.4 %');
  expect(shareWords(-0.0123, 0.00001)).toBe('−1.2 ± <0.1 %');
  expect(shareWords(-0.0002, 0.004)).toBe('0.0 ± 0.4 %');
  expect(shareWords(-0.0052, 0.0049)).toBe('−0.52 ± 0.49 %');
});

test('a value axis holds its values, ends on its own step, and never falls below the span asked for', () => {
  const value = fc.double({ min: -500, max: 500, noNaN: true });
  fc.assert(
    fc.property(
      value,
      value,
      fc.integer({ min: 2, max: 8 }),
      fc.double({ min: 0, max: 100, noNaN: true }),
      (a, b, lines, atLeast) => {
        const { least, most, step } = niceRange(Math.min(a, b), Math.max(a, b), lines, atLeast);
        expect(least).toBeLessThanOrEqual(Math.min(a, b) + 1e-6);
        expect(most).toBeGreaterThanOrEqual(Math.max(a, b) - 1e-6);
        expect(most - least).toBeGreaterThanOrEqual(atLeast - 1e-6);
        expect(Math.abs(least / step - Math.round(least / step))).toBeLessThan(1e-6);
      },
    ),
  );
  expect(niceRange(Infinity, -Infinity, 4)).toEqual({ least: 0, most: 1, step: 1 });
});

test('letters give a hue for ever, ink to the baseline, and another dash after eight', () => {
  for (const index of [0, 1, 7, 8, 25, 26, 60]) expect(positionOfLetter(setupLetter(index))).toBe(index);
  expect(setupColour('A', true)).toBe('var(--ink)');
  expect(setupColour('A', false)).toBe('var(--setup-0)');
  expect(setupColour('I', false)).toBe('var(--setup-0)');
  expect(setupDash('H')).toEqual([]);
  expect(setupDash('I')).not.toEqual(setupDash('A'));
});
