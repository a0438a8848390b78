import { addedAt, entryKinds, type EntryKind } from '../../contract/job/entries.ts';
import { limitQuantities, limitQuantityNames } from '../../core/limits/limit.ts';
import type { Database } from '../../store/database/database.ts';
import { addEntry, changeEntry, entryById } from '../../store/database/entries.ts';
import { act, bodyAs, found, idOf, refuseStrangers } from './answer.ts';
import { HttpRefusal } from '../http-refusal.ts';
import { revisionOf } from './answer.ts';
import { takesAway } from './takes-away.ts';
import type { ContractRoutes } from './contract-routes.ts';

/** Bands, limits, inspection, fuel, suspicions, notes and parts: added, changed, taken away. */
export function entryRoutes(routes: ContractRoutes, database: Database): void {
  for (const [name, form] of Object.entries(entryKinds)) {
    const { of, path, fields, table } = form;
    const kind = name as EntryKind;

    routes.post(addedAt(form), async (request, response) => {
      const owner = of === 'shop' ? null : idOf(request);
      const entry = bodyAs(request, fields);
      refuseUnjudgeable(kind, entry);
      const id = await act(database, response, (client) => addEntry(client, kind, owner, entry));
      response.status(201).json(found(await entryById(database, kind, id), 'entry'));
    });

    routes.patch(`/${path}/:id`, async (request, response) => {
      const id = idOf(request);
      const before = found(await entryById(database, kind, id), 'entry');
      const given = request.body as Record<string, unknown>;
      // Rules that bind two fields hold for the entry as it will be.
      refuseStrangers(given, fields);
      const whole = Object.entries({ ...before, ...given }).filter(([field]) => field in fields.shape);
      const wanted = bodyAs({ body: Object.fromEntries(whole) }, fields) as Record<string, unknown>;
      refuseUnjudgeable(kind, wanted);
      const change = Object.fromEntries(Object.entries(wanted).filter(([field]) => field in given));
      const revision = revisionOf(given);
      found(await act(database, response, (client) => changeEntry(client, kind, id, change, revision)), 'entry');
      response.json(found(await entryById(database, kind, id), 'entry'));
    });

    takesAway(routes, database, `/${path}/:id`, table, 'entry');
  }
}

/** A limit that nothing is held against would be a promise that nobody keeps. */
function refuseUnjudgeable(kind: EntryKind, entry: object): void {
  const { quantity } = entry as { quantity?: string };
  if (kind !== 'limits' || quantity === undefined || Object.hasOwn(limitQuantities, quantity)) return;
  throw new HttpRefusal(
    422,
    `quantity: "${quantity}" is not known, so no run could be held against the limit. Known are ${limitQuantityNames.join(', ')}.`,
  );
}
