import { expect, test } from '@jest/globals';
import { daysLeft, dueDay, dueNext, dueStanding, dueWords } from './due.ts';

const item = (lastOn: string | null, everyDays: number | null, dueOn: string | null = null) => ({
  lastOn,
  everyDays,
  dueOn,
});
const today = '2026-03-28';

test('is due so long after the last day, or on the day that was given; over the change of clocks too', () => {
  expect(dueDay(item('2026-02-28', 30))).toBe('2026-03-30');
  expect(dueDay(item('2026-02-28', 30, '2026-04-15'))).toBe('2026-04-15');
  expect(daysLeft(item('2026-03-01', 31), today)).toBe(4);
  expect([dueDay(item(null, 30)), dueDay(item('2026-02-28', null)), dueStanding(item(null, null), today)]).toEqual([
    null,
    null,
    'no date',
  ]);
});

test('is told of two weeks ahead, and overdue from the day after', () => {
  const standings = ['2026-03-27', '2026-03-28', '2026-04-11', '2026-04-12'].map((day) =>
    dueStanding(item(null, null, day), today),
  );
  expect(standings).toEqual(['overdue', 'due soon', 'due soon', 'in date']);
  const words = ['2026-03-25', '2026-03-27', '2026-03-28', '2026-03-29', '2026-04-06'].map((day) =>
    dueWords(item(null, null, day), today),
  );
  expect(words).toEqual(['3 days ago', 'yesterday', 'today', 'tomorrow', 'in 9 days']);
});

test('the most urgent stands first; what has time or no date is left out', () => {
  const items = [
    item(null, null, '2026-06-01'),
    item(null, null, '2026-04-01'),
    item(null, null),
    item(null, null, '2026-03-01'),
  ];
  expect(dueNext(items, today).map(({ dueOn }) => dueOn)).toEqual(['2026-03-01', '2026-04-01']);
});
