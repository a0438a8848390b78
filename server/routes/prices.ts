import type { Database } from '../../store/database.ts';
import { priceList } from '../../store/prices.ts';
import type { ContractRoutes } from './contract-routes.ts';

/** The price list; its entries are answered as every other short entry. */
export function priceRoutes(routes: ContractRoutes, database: Database): void {
  routes.get('/prices', async (_request, response) => {
    response.json(await priceList(database));
  });
}
