import { expect, test } from '@jest/globals';
import { liftSpeed } from './lift-speed.ts';

test.each([
  ['what is planned', 6500, [], 7000, 6500],
  ['a limit below it', 6500, [6200, 6800], 7000, 6200],
  ['the limit alone', null, [6800], 7000, 6800],
  ['where the baseline ended, for want of both', undefined, [], 7000, 7000],
  ['nothing', undefined, [], undefined, undefined],
])('the driver lifts at the lowest: %s', (_, planned, limits, ends, lift) => {
  const all = [
    ...limits.map((value) => ({ quantity: 'engineSpeed' as const, value })),
    { quantity: 'torque' as const, value: 400 },
  ];
  expect(liftSpeed(planned, all, ends)).toBe(lift);
});
