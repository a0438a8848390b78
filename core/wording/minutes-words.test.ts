import { expect, test } from '@jest/globals';
import { clockWords, minutesWords } from './minutes-words.ts';

test('a wait is told in the largest unit that still says something', () => {
  expect([3, 42, 94, 100, 3500, 3700, 200_000].map(minutesWords)).toEqual([
    '5 s',
    '40 s',
    '95 s',
    '2 min',
    '58 min',
    '1 h 1 min',
    '2 days',
  ]);
});

test('a clock counts seconds up to an hour', () => {
  expect([0, 65.9, 3599, 3600].map(clockWords)).toEqual(['0:00 min', '1:05 min', '59:59 min', '1 h']);
});
