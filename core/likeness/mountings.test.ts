import { expect, test } from '@jest/globals';
import { byMounting, mountedAnew } from './mountings.ts';

const hours = (...at: number[]) => byMounting(at, (hour) => ({ atMs: hour * 3600e3 }));

test('a new strapping begins after more than twelve hours, whatever the order they came in', () => {
  // Exactly twelve hours are still one.
  expect(hours(24, 0, 1, 12)).toEqual([[0, 1, 12, 24]]);
  expect(hours(0, 1, 13.1, 40)).toEqual([[0, 1], [13.1], [40]]);
  expect(hours()).toEqual([]);
});

test('another bay is another strapping, whatever was said; a file from nowhere says nothing', () => {
  const at = (hours: number, bay?: number, remounted: boolean | null = null) => ({
    atMs: hours * 3600e3,
    bay,
    remounted,
  });
  expect(mountedAnew([at(0, 1), at(1, 1)])).toBe(false);
  expect(mountedAnew([at(0, 1), at(1, 2)])).toBe(true);
  expect(mountedAnew([at(0, 1), at(1, 2, false)])).toBe(true);
  expect(mountedAnew([at(0, 1), at(1)])).toBe(false);
});

test('a strapping anew is one where somebody said so, and none where somebody said there was none', () => {
  const at = (hours: number, remounted: boolean | null = null) => ({ atMs: hours * 3600e3, remounted });
  expect(mountedAnew([at(0), at(1), at(2)])).toBe(false);
  expect(mountedAnew([at(0), at(1, true), at(2)])).toBe(true);
  expect(mountedAnew([at(0), at(20)])).toBe(true);
  expect(mountedAnew([at(0), at(20, false)])).toBe(false);
  expect(mountedAnew([at(0), { atMs: undefined }])).toBe(false);
  // What is said of the first run tells of a strapping before all of them.
  expect(mountedAnew([at(0, true), at(1)])).toBe(false);
});
