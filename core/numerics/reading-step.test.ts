import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { readingStep, usualInterval } from './reading-step.ts';

test('the step that readings are told in, whatever they go through and whatever unit they were written in', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(1, 0.5, 0.1, 10, 25),
      fc.constantFrom(1, 1 / 3.6, 6.894757),
      fc.array(fc.integer({ min: -40, max: 40 }), { minLength: 40, maxLength: 200 }),
      (step, unit, counts) => {
        fc.pre(new Set(counts).size > 15 && counts.some((count) => counts.includes(count + 1)));
        const values = Float64Array.from(counts, (count) => Math.fround(count * step * unit));
        const found = readingStep(values) / (step * unit);
        expect(Math.abs(found - Math.round(found))).toBeLessThan(1e-4);
        expect(found).toBeLessThan(2.5);
      },
    ),
  );
});

test('readings that are not stepped, or never change, have next to no step', () => {
  const smooth = Float64Array.from({ length: 2000 }, (_, at) => 100 * Math.sin(at / 97));
  expect(readingStep(smooth)).toBeLessThan(0.05);
  expect(readingStep(new Float64Array(50).fill(412))).toBe(0);
  expect(readingStep(Float64Array.from([NaN]))).toBe(0);
});

test('the usual interval of times', () => {
  expect(usualInterval(Float64Array.from([0, 0.1, 0.2, 0.3]))).toBeCloseTo(0.1);
  expect(usualInterval(Float64Array.from([3]))).toBe(0);
});
