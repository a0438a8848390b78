import { touchedBy } from '../../contract/job/changes.ts';
import { takeChanged } from './changed-tables.ts';
import { keyOfSubject } from './query-keys.ts';
import { queryClient } from './queries.ts';

/** Fetches anew what this page's acts have touched: everything, where the server did not say. */
export async function fetchWhatChanged(): Promise<void> {
  const tables = takeChanged();
  if (tables) await fetchTouched(tables, null);
  else await queryClient.invalidateQueries();
}

/** Fetches anew what a change of some tables touches. @param jobId whose they are; null for any */
export async function fetchTouched(tables: Iterable<string>, jobId: number | null): Promise<void> {
  const fetched = touchedBy(tables).map((subject) => keyOfSubject(subject, jobId));
  await Promise.all(fetched.map((queryKey) => queryClient.invalidateQueries({ queryKey })));
}
