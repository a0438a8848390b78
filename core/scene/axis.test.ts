import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { axisStep } from './axis-step.ts';
import { niceRange, readingRange } from './nice-range.ts';

/** 1, 2 or 5 times a power of ten. */
const isRound = (step: number) => {
  const mantissa = step / 10 ** Math.floor(Math.log10(step) + 1e-9);
  return [1, 2, 5].some((round) => Math.abs(mantissa - round) < 1e-6);
};
const value = fc.double({ min: -1e4, max: 1e4, noNaN: true });

describe('the figures of an axis', () => {
  test('are four to nine of any range, each a round one', () => {
    fc.assert(
      fc.property(value, fc.double({ min: 0.01, max: 1e4, noNaN: true }), (from, width) => {
        const step = axisStep([from, from + width]);
        expect(isRound(step)).toBe(true);
        expect(width / step).toBeGreaterThan(3.1);
        expect(width / step).toBeLessThan(8.1);
      }),
    );
  });

  test('of a usual range of engine speed stand 500 or 1,000 rpm apart', () => {
    expect(axisStep([2000, 6800])).toBe(1000);
    expect(axisStep([2500, 6000])).toBe(500);
  });
});

describe('a value axis', () => {
  test('holds all values between round ends, a whole number of round steps apart', () => {
    fc.assert(
      fc.property(value, value, fc.integer({ min: 2, max: 6 }), (a, b, lines) => {
        const [least, most] = [Math.min(a, b), Math.max(a, b)];
        const range = niceRange(least, most, lines, 1);
        expect(isRound(range.step)).toBe(true);
        // A value that lies beyond a line by less than can be drawn lies on it.
        expect(range.least).toBeLessThanOrEqual(least + 2e-9 * range.step);
        expect(range.most).toBeGreaterThanOrEqual(most - 2e-9 * range.step);
        const steps = (range.most - range.least) / range.step;
        expect(Math.abs(steps - Math.round(steps))).toBeLessThan(1e-6);
        expect(steps).toBeLessThanOrEqual(lines + 2);
      }),
    );
  });

  test('never falls below its least width, whatever the noise: a steady reading stays a line', () => {
    const range = niceRange(50, 50.01, 3, 10);
    expect(range.most - range.least).toBeGreaterThanOrEqual(10);
    expect(range.least).toBeLessThanOrEqual(45);
    expect(readingRange([Float64Array.of(85, 85.2)], '°C')).toMatchObject({ least: 82, most: 90 });
  });

  test('of nothing is there all the same', () => {
    expect(niceRange(Infinity, -Infinity, 3)).toEqual({ least: 0, most: 1, step: 1 });
    expect(readingRange([], 'kPa')).toEqual({ least: 0, most: 1, step: 1 });
    expect(readingRange([Float64Array.of(NaN)], 'kPa')).toEqual({ least: 0, most: 1, step: 1 });
  });
});
