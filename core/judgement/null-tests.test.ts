import { expect, test } from '@jest/globals';
import { shortOrWhole } from '../testing/short-or-whole.ts';
import { drawnTest, waysOfLogging } from '../testing/null-tests.ts';

const cars = shortOrWhole(4, 300);
/** As many false claims as chance alone brings with 1 in 100 where 1 in 20 comparisons makes one. */
const mostFalse = shortOrWhole(2, 24);

test.each(waysOfLogging)('%s at %s claims nothing of a car that was not changed', (kind, _, how) => {
  let claimed = 0;
  for (let car = 1; car <= cars; car++)
    if (drawnTest(kind, how, car, false).figures.some(({ claim }) => claim)) claimed++;
  expect(claimed).toBeLessThanOrEqual(mostFalse);
});

test.each(waysOfLogging.filter(([kind, name]) => /^(50|100) Hz$/.test(name) && kind !== 'idle'))(
  '%s at %s shows a large change of most',
  (kind, _, how) => {
    let found = 0;
    for (let car = 1; car <= cars; car++)
      if (drawnTest(kind, how, car, true).figures.some(({ claim }) => claim)) found++;
    expect(found / cars).toBeGreaterThanOrEqual(0.5);
  },
);

test('no interval is narrower than what is told in steps, and none is nothing', () => {
  for (const [kind, , how] of waysOfLogging)
    for (const { halfWidth, digits } of drawnTest(kind, how, 1, false).figures)
      if (!Number.isNaN(halfWidth)) expect(halfWidth).toBeGreaterThanOrEqual(10 ** -digits);
});
