import { z } from 'zod';
import type { DynoHistory } from '../dyno-history.ts';
import { HttpRefusal } from '../http-refusal.ts';
import type { ContractRoutes } from './contract-routes.ts';

const query = z.object({ device: z.string().min(1).max(64), job: z.coerce.number().int().positive().optional() });

/** A dyno's check runs and what its jobs have shown of its spread. */
export function checkRoutes(routes: ContractRoutes, dynos: DynoHistory): void {
  routes.get('/check-history', async (request, response) => {
    const asked = query.safeParse(request.query);
    if (!asked.success) throw new HttpRefusal(400, 'Name the instrument: ?device=…');
    response.json(await dynos.of(asked.data.device, asked.data.job));
  });
}
