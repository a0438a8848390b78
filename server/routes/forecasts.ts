import { scoredForecasts } from '../../store/forecasts.ts';
import type { Database } from '../../store/database.ts';
import type { ContractRoutes } from './contract-routes.ts';

/** How forecasts came out; they themselves are answered as every other short entry. */
export function forecastRoutes(routes: ContractRoutes, database: Database): void {
  routes.get('/forecasts', async (_request, response) => {
    response.json(await scoredForecasts(database));
  });
}
