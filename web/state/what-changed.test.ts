/** @jest-environment jsdom */
import { afterEach, expect, jest, test } from '@jest/globals';
import { QueryObserver } from '@tanstack/react-query';
import { noteChanged, takeChanged } from './changed-tables.ts';
import { queryClient } from './queries.ts';
import { fetchAnew, fetchWhatChanged } from './what-changed.ts';

let fetched: unknown[];
function watchFetches(): void {
  takeChanged();
  fetched = [];
  jest.spyOn(queryClient, 'invalidateQueries').mockImplementation((filters) => {
    fetched.push(filters?.queryKey ?? 'everything');
    return Promise.resolve();
  });
}
afterEach(() => {
  queryClient.clear();
  jest.restoreAllMocks();
});

test('a change fetches what the server says that it touched, once', async () => {
  watchFetches();
  noteChanged('price');
  noteChanged('booking,price');
  await fetchWhatChanged();
  expect(fetched).toEqual([['prices'], ['day'], ['job'], ['jobs']]);
  fetched = [];
  await fetchWhatChanged();
  expect(fetched).toEqual([]);
});

test('everything is fetched where the server does not say what was touched', async () => {
  watchFetches();
  noteChanged('price');
  noteChanged(null);
  await fetchWhatChanged();
  expect(fetched).toEqual(['everything']);
});

test('what is asked for the first time while it changes is asked once more, however often it changed', async () => {
  const answers: ((list: string[]) => void)[] = [];
  const asked = new QueryObserver(queryClient, {
    queryKey: ['equipment'],
    queryFn: () => new Promise<string[]>((answer) => answers.push(answer)),
  });
  const end = asked.subscribe(() => undefined);
  const changed = [fetchAnew({ queryKey: ['equipment'] }), fetchAnew({ queryKey: ['equipment'] })];
  answers[0]!([]);
  await asked.getCurrentQuery().promise;
  while (answers.length < 2) await new Promise((resolve) => setTimeout(resolve));
  answers[1]!(['straps']);
  await Promise.all(changed);
  expect(asked.getCurrentResult().data).toEqual(['straps']);
  expect(answers).toHaveLength(2);
  end();
});
