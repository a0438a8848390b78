import { expect, test } from '@jest/globals';
import { headroomTable } from './headroom-table.ts';
import type { Limit } from './limit.ts';

const boost: Limit = { quantity: 'boost', value: 125, scale: null };
const oil: Limit = { quantity: 'oilPressure', value: 250, scale: null };
const torque: Limit = { quantity: 'torque', value: 280, scale: 'crank' };
const of =
  (values: Partial<Record<string, number>>) =>
  ({ quantity }: Limit) =>
    values[quantity];

test('what is left, the nearest first, and where one more step would land', () => {
  const { rows, unknown } = headroomTable(
    [oil, boost, torque],
    of({ boost: 121, oilPressure: 400, torque: 170 }),
    of({ boost: 109, oilPressure: 402 }),
  );
  expect(rows.map(({ label }) => label)).toEqual(['Boost', 'Oil pressure']);
  expect(rows[0]).toMatchObject({ left: 4, next: 133, nextLeft: -8 });
  expect(rows[1]).toMatchObject({ left: 150, next: 398 });
  expect(unknown).toEqual(['Torque (on the crank’s scale)']);
});

test('without a run before there is no next step, and an unread limit is named', () => {
  const { rows, unknown } = headroomTable([boost, oil], of({ boost: 90 }), of({}));
  expect(rows[0]!.next).toBeUndefined();
  expect(unknown).toEqual(['Oil pressure']);
});
