import { Router } from 'express';
import type { z } from 'zod';
import * as file from '../../contract/job-file.ts';
import { partFields } from '../../contract/vehicles.ts';
import type { Database } from '../store/database.ts';
import { addEntry, changeEntry, entryById, entryTables, removeEntry, type EntryKind } from '../store/entries.ts';
import { act, bodyAs, found, idOf } from './answer.ts';
import { revisionOf } from './revision.ts';

/** Each kind of entry: its path, whose it is, and the fields that a page sends. */
export const entryPaths: Record<EntryKind, { of: 'jobs' | 'vehicles'; path: string; fields: z.ZodObject }> = {
  bands: { of: 'jobs', path: 'bands', fields: file.bandFields },
  limits: { of: 'jobs', path: 'limits', fields: file.limitFields },
  inspections: { of: 'jobs', path: 'inspections', fields: file.inspectionFields },
  fuelEntries: { of: 'jobs', path: 'fuel-entries', fields: file.fuelFields },
  suspicions: { of: 'jobs', path: 'suspicions', fields: file.suspicionFields },
  notes: { of: 'jobs', path: 'notes', fields: file.noteFields },
  parts: { of: 'vehicles', path: 'parts', fields: partFields },
};

/** Bands, limits, inspection, fuel, suspicions, notes and parts: added, changed, taken away. */
export function entryRoutes(database: Database): Router {
  const router = Router();
  for (const [name, { of, path, fields }] of Object.entries(entryPaths)) {
    const kind = name as EntryKind;

    router.post(`/${of}/:id/${path}`, async (request, response) => {
      const owner = idOf(request);
      const entry = bodyAs(request, fields);
      const id = await act(database, response, (client) => addEntry(client, kind, owner, entry));
      response.status(201).json(found(await entryById(database, kind, id), 'entry'));
    });

    router.patch(`/${path}/:id`, async (request, response) => {
      const id = idOf(request);
      const before = found(await entryById(database, kind, id), 'entry');
      const given = request.body as Record<string, unknown>;
      // Rules that bind two fields hold for the entry as it will be.
      const wanted = bodyAs({ body: { ...before, ...given } }, fields) as Record<string, unknown>;
      const change = Object.fromEntries(Object.entries(wanted).filter(([field]) => field in given));
      const revision = revisionOf(given);
      found(await act(database, response, (client) => changeEntry(client, kind, id, change, revision)), 'entry');
      response.json(found(await entryById(database, kind, id), 'entry'));
    });

    router.delete(`/${path}/:id`, async (request, response) => {
      const id = idOf(request);
      const { table } = entryTables[kind];
      found(await act(database, response, (client) => removeEntry(client, table, id)), 'entry');
      response.status(204).end();
    });
  }
  return router;
}
