import { fetchWhatChanged } from './what-changed.ts';
import type { EntryPath } from '../../contract/job/entries.ts';
import { api } from './api.ts';
import { tellProblem } from './queries.ts';
import { takeAway } from './undo.tsx';

/** Entries of one kind that belong to the shop. */
export const entriesOfShop = (path: EntryPath) => entriesOf('jobs', null, path);

/** Adds, changes and takes away entries of one kind; where the server refuses, its sentence is shown. @returns whether it was stored */
export function entriesOf(of: 'jobs' | 'vehicles', ownerId: number | null, path: EntryPath) {
  const stored = async (send: Promise<unknown>): Promise<boolean> => {
    try {
      await send;
    } catch (error) {
      tellProblem(error as Error);
      return false;
    }
    await fetchWhatChanged();
    return true;
  };
  return {
    add: (fields: object) => stored(api.addEntry(of, ownerId, path, fields)),
    change: (id: number, fields: object) => stored(api.changeEntry(path, id, fields)),
    remove: (what: string, id: number) => takeAway(what, () => api.removeEntry(path, id)),
  };
}
