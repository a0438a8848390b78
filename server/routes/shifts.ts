import type { Database } from '../../store/database.ts';
import { shiftNotes } from '../../store/shifts.ts';
import type { ContractRoutes } from './contract-routes.ts';

/** What shifts handed over; notes themselves are written as every other short entry. */
export function shiftRoutes(routes: ContractRoutes, database: Database): void {
  routes.get('/shift-notes', async (_request, response) => {
    response.json(await shiftNotes(database));
  });
}
