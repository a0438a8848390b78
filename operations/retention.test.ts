import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { superfluous } from './retention.ts';

const dayMs = 24 * 3600e3;
const days = (count: number, from = '2026-11-27T03:00:00Z') =>
  Array.from({ length: count }, (_, back) => new Date(Date.parse(from) - back * dayMs));
const keptOf = (made: Date[]) => {
  const goes = superfluous(made);
  return made.filter((moment) => !goes.includes(moment));
};

test('of two years of days a week of days, five weeks and a year of months stay', () => {
  const kept = keptOf(days(730));
  expect(kept.length).toBeGreaterThanOrEqual(7 + 3 + 9);
  expect(kept.length).toBeLessThanOrEqual(7 + 5 + 12);
  for (const moment of days(7)) expect(kept).toContainEqual(moment);
  expect(Math.min(...kept.map(Number))).toBeGreaterThan(Date.parse('2025-12-01'));
});

test('thinned out day by day, the same stay as when all were there at once', () => {
  let there: Date[] = [];
  for (const moment of days(400).reverse()) there = keptOf([...there, moment]);
  expect(there.map(Number).sort()).toEqual(keptOf(days(400)).map(Number).sort());
});

test('whenever they were made, the newest stays and never all go', () => {
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 0, max: 2000 }), { minLength: 1, maxLength: 60 }), (ago) => {
      const made = ago.map((hours, at) => new Date(Date.parse('2026-11-27T03:00:00Z') - hours * 3600e3 * 7 - at));
      const kept = keptOf(made);
      expect(kept).toContainEqual(new Date(Math.max(...made.map(Number))));
      // A shop that is closed for a month loses none of its last backups by that.
      expect(kept.length).toBeGreaterThanOrEqual(
        Math.min(7, new Set(made.map((moment) => Math.floor(Number(moment) / dayMs))).size),
      );
    }),
  );
});
