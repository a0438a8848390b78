/** @jest-environment jsdom */
import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import { noteChanged, takeChanged } from './changed-tables.ts';
import { queryClient } from './queries.ts';
import { fetchWhatChanged } from './what-changed.ts';

let fetched: unknown[];
beforeEach(() => {
  takeChanged();
  fetched = [];
  jest.spyOn(queryClient, 'invalidateQueries').mockImplementation((filters) => {
    fetched.push(filters?.queryKey ?? 'everything');
    return Promise.resolve();
  });
});
afterEach(() => void jest.restoreAllMocks());

test('a change fetches what the server says that it touched, once', async () => {
  noteChanged('price');
  noteChanged('booking,price');
  await fetchWhatChanged();
  expect(fetched).toEqual([['prices'], ['day'], ['job'], ['jobs']]);
  fetched = [];
  await fetchWhatChanged();
  expect(fetched).toEqual([]);
});

test('everything is fetched where the server does not say what was touched', async () => {
  noteChanged('price');
  noteChanged(null);
  await fetchWhatChanged();
  expect(fetched).toEqual(['everything']);
});
