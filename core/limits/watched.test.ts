import { expect, test } from '@jest/globals';
import type { Limit } from './limit.ts';
import { heldLimit, watchedLimits } from './watched.ts';

const limits: Limit[] = [
  { quantity: 'engineSpeed', value: 7100, scale: null },
  { quantity: 'lambda', value: 0.9, scale: null },
  { quantity: 'oilPressure', value: 250, scale: null },
  { quantity: 'torque', value: 215, scale: 'crank' },
];
const reads = (values: Record<string, number>) => (quantity: string) => values[quantity];

test('a limit is crossed on its dangerous side, and every row stays where it stands', () => {
  const found = watchedLimits(limits, reads({ engineSpeed: 6000, lambda: 0.95, oilPressure: 300 }), true);
  expect(found.map(({ quantity }) => quantity)).toEqual(limits.map(({ quantity }) => quantity));
  expect(found[1]).toMatchObject({ quantity: 'lambda', crossed: true });
  expect(found.find(({ quantity }) => quantity === 'oilPressure')).toMatchObject({ crossed: false, left: 50 });
});

test('close to it is near; just on it is kept', () => {
  const at = (engineSpeed: number) => watchedLimits(limits, reads({ engineSpeed }), true)[0]!;
  expect(at(6900)).toMatchObject({ near: true, crossed: false });
  expect(at(7100)).toMatchObject({ crossed: false, left: 0 });
  expect(at(7101).crossed).toBe(true);
});

test('λ within what a probe is good to is on its limit, not beyond it, as in the log', () => {
  const at = (lambda: number) => watchedLimits(limits, reads({ lambda }), true)[1]!;
  expect(at(0.908)).toMatchObject({ crossed: false, near: true });
  expect(at(0.91).crossed).toBe(true);
});

test('λ and oil pressure are not watched while the engine idles', () => {
  const idle = watchedLimits(limits, reads({ lambda: 1.02, oilPressure: 120 }), false);
  expect(idle.some(({ crossed }) => crossed)).toBe(false);
});

test('a crank limit is not judged by what the wheels read', () => {
  expect(
    watchedLimits(limits, reads({ torque: 230 }), true).find(({ quantity }) => quantity === 'torque')!.left,
  ).toBeUndefined();
});

test('what a limit was in a pull it stays, the gravest of it', () => {
  const [now] = watchedLimits(limits, reads({ engineSpeed: 5000 }), true);
  expect(heldLimit(now!, false, false)).toMatchObject({ crossed: false, near: false, reading: 5000 });
  expect(heldLimit(now!, false, true)).toMatchObject({ crossed: false, near: true });
  expect(heldLimit(now!, true, true)).toMatchObject({ crossed: true, near: false, reading: 5000 });
  // A wild sample that was too short to count is no crossing.
  expect(heldLimit({ ...now!, crossed: true }, false, true)).toMatchObject({ crossed: false, near: true });
});

test('near is within a twentieth of the limit, on either side of danger, and never of what cannot be judged', () => {
  const at = (values: Record<string, number>, loaded = true) => watchedLimits(limits, reads(values), loaded);
  expect(at({ engineSpeed: 7100 - 354 })[0]!.near).toBe(true);
  expect(at({ engineSpeed: 7100 - 355 })[0]!.near).toBe(false);
  expect(at({ engineSpeed: 7200 })[0]).toMatchObject({ near: false, crossed: true });
  expect(at({ oilPressure: 262 })[2]).toMatchObject({ near: true, crossed: false });
  expect(at({ oilPressure: 249 })[2]).toMatchObject({ near: false, crossed: true, left: -1 });
  expect(at({})[0]).toMatchObject({ reading: undefined, left: undefined, near: false, crossed: false });
  expect(at({ oilPressure: 120 }, false)[2]).toMatchObject({
    reading: 120,
    left: undefined,
    near: false,
    applies: false,
  });
});
