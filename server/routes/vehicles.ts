import { z } from 'zod';
import { newVehicle, ownerFields, vehicleChange } from '../../contract/shop/vehicles.ts';
import type { Database } from '../../store/database/database.ts';
import { removeEntry } from '../../store/database/entries.ts';
import { changeRow, insertRow } from '../../store/database/rows.ts';
import { ownerNamed, owners, vehicleSummaries, vehicleWithAll } from '../../store/shop/vehicles.ts';
import { act, bodyAs, found, idOf } from './answer.ts';
import { HttpRefusal } from '../http-refusal.ts';
import { revisionOf } from './answer.ts';
import type { ContractRoutes } from './contract-routes.ts';

/** Owners and vehicles. An owner may be given by name: found, or written down anew. */
export function vehicleRoutes(routes: ContractRoutes, database: Database): void {
  const whole = async (id: number) => found(await vehicleWithAll(database, id), 'vehicle');

  routes.get('/owners', async (_request, response) => {
    response.json(await owners(database));
  });

  routes.patch('/owners/:id', async (request, response) => {
    const id = idOf(request);
    const fields = bodyAs(request, ownerFields.partial());
    const revision = revisionOf(request.body);
    found(await act(database, response, (client) => changeRow(client, 'owner', id, fields, revision)), 'owner');
    response.json(
      found(
        (await owners(database)).find((owner) => owner.id === id),
        'owner',
      ),
    );
  });

  routes.get('/vehicles', async (request, response) => {
    const search = z.string().max(200).default('').safeParse(request.query.search);
    if (!search.success) throw new HttpRefusal(400, 'The search is too long.');
    response.json(await vehicleSummaries(database, search.data));
  });

  routes.post('/vehicles', async (request, response) => {
    const { ownerName, ...fields } = bodyAs(request, newVehicle);
    const id = await act(database, response, async (client) =>
      insertRow(client, 'vehicle', {
        ...fields,
        ...(ownerName === undefined ? {} : { ownerId: await ownerNamed(client, ownerName) }),
      }),
    );
    response.status(201).json(await whole(id));
  });

  routes.get('/vehicles/:id', async (request, response) => {
    response.json(await whole(idOf(request)));
  });

  routes.patch('/vehicles/:id', async (request, response) => {
    const id = idOf(request);
    const { ownerName, ...fields } = bodyAs(request, vehicleChange);
    const done = await act(database, response, async (client) => {
      const owner = ownerName === undefined ? {} : { ownerId: await ownerNamed(client, ownerName) };
      return changeRow(client, 'vehicle', id, { ...fields, ...owner }, revisionOf(request.body));
    });
    found(done, 'vehicle');
    response.json(await whole(id));
  });

  routes.delete('/vehicles/:id', async (request, response) => {
    const id = idOf(request);
    if ((await whole(id)).jobs.length > 0) {
      throw new HttpRefusal(409, 'A vehicle that has jobs is kept: its runs belong to it.');
    }
    found(await act(database, response, (client) => removeEntry(client, 'vehicle', id)), 'vehicle');
    response.status(204).end();
  });
}
