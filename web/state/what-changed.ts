import type { Query, QueryFilters } from '@tanstack/react-query';
import { touchedBy } from '../../contract/job/changes.ts';
import { takeChanged } from './changed-tables.ts';
import { keyOfSubject } from './query-keys.ts';
import { queryClient } from './queries.ts';

/** Fetches anew what this page's acts have touched: everything, where the server did not say. */
export async function fetchWhatChanged(): Promise<void> {
  const tables = takeChanged();
  if (tables) await fetchTouched(tables, null);
  else await fetchAnew();
}

/** Fetches anew what a change of some tables touches. @param jobId whose they are; null for any */
export async function fetchTouched(tables: Iterable<string>, jobId: number | null): Promise<void> {
  const fetched = touchedBy(tables).map((subject) => keyOfSubject(subject, jobId));
  await Promise.all(fetched.map((queryKey) => fetchAnew({ queryKey })));
}

/** First questions that will be asked once more. */
const askedAgain = new WeakSet<Query>();

/**
 * Has what screens show fetched anew, and the rest when it is next looked at. What is being asked for the first time
 * may be answered from before the change, so that it is asked once more.
 * @param filters which answers; all where left out
 */
export async function fetchAnew(filters: QueryFilters = {}): Promise<void> {
  const unanswered = queryClient
    .getQueryCache()
    .findAll({ ...filters, fetchStatus: 'fetching' })
    .filter((query) => query.state.data === undefined && !askedAgain.has(query));
  await Promise.all([queryClient.invalidateQueries(filters), ...unanswered.map(askAgain)]);
}

async function askAgain(query: Query): Promise<void> {
  askedAgain.add(query);
  await query.promise?.catch(() => undefined);
  askedAgain.delete(query);
  await queryClient.invalidateQueries({ queryKey: query.queryKey, exact: true });
}
