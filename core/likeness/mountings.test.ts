import { expect, test } from '@jest/globals';
import { byMounting } from './mountings.ts';

const hours = (...at: number[]) => byMounting(at, (hour) => hour * 3600e3);

test('a new strapping begins after more than twelve hours, whatever the order they came in', () => {
  // Exactly twelve hours are still one.
  expect(hours(24, 0, 1, 12)).toEqual([[0, 1, 12, 24]]);
  expect(hours(0, 1, 13.1, 40)).toEqual([[0, 1], [13.1], [40]]);
  expect(hours()).toEqual([]);
});
