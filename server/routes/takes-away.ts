import type { Database } from '../../store/database/database.ts';
import { removeEntry } from '../../store/database/entries.ts';
import { act, found, idOf } from './answer.ts';
import type { ContractRoutes } from './contract-routes.ts';

/** Answers DELETE: the row stays stored, and its act can be undone. @param table a name of our own */
export function takesAway(routes: ContractRoutes, database: Database, path: string, table: string, what: string): void {
  routes.delete(path, async (request, response) => {
    const id = idOf(request);
    found(await act(database, response, (client) => removeEntry(client, table, id)), what);
    response.status(204).end();
  });
}
