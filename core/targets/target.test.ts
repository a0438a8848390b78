import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { targetStanding } from './target.ts';

test('reached only with the whole interval, short only without any of it, open in between', () => {
  expect(targetStanding([100, 100], 101, 1)).toBe('reached');
  expect(targetStanding([100, 100], 100.9, 1)).toBe('open');
  expect(targetStanding([100, 100], 99.1, 1)).toBe('open');
  expect(targetStanding([100, 100], 98.9, 1)).toBe('short');
  expect(targetStanding([100, 100], undefined, 1)).toBe('not covered');
  // Nothing tells of the spread: even a figure far above is a reading.
  expect(targetStanding([100, 100], 200, undefined)).toBe('open');
  // By the usual losses a target of the crank is a range: reached above all of it.
  expect(targetStanding([78, 88], 85, 1)).toBe('open');
  expect(targetStanding([78, 88], 90, 1)).toBe('reached');
});

test('more is never worse, and a wider interval never says more', () => {
  const order = ['short', 'open', 'reached'];
  const figure = fc.double({ min: 1, max: 500, noNaN: true });
  fc.assert(
    fc.property(
      figure,
      figure,
      figure,
      figure,
      fc.double({ min: 0, max: 50, noNaN: true }),
      (low, width, made, more, half) => {
        const here = [low, low + width] as const;
        const rank = (value: number, halfWidth: number) => order.indexOf(targetStanding(here, value, halfWidth));
        expect(rank(made + more, half)).toBeGreaterThanOrEqual(rank(made, half));
        if (targetStanding(here, made, half) === 'open') expect(targetStanding(here, made, half + more)).toBe('open');
      },
    ),
  );
});
