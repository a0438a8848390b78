import type { Database } from '../../store/database/database.ts';
import { priceList, scoredForecasts, shiftNotes } from '../../store/shop/shop-lists.ts';
import type { ContractRoutes } from './contract-routes.ts';

/** The shop's own lists as a whole; their entries are written as every other short entry. */
export function shopListRoutes(routes: ContractRoutes, database: Database): void {
  routes.get('/prices', async (_request, response) => {
    response.json(await priceList(database));
  });
  routes.get('/shift-notes', async (_request, response) => {
    response.json(await shiftNotes(database));
  });
  routes.get('/forecasts', async (_request, response) => {
    response.json(await scoredForecasts(database));
  });
}
