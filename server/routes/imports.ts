import { randomUUID } from 'node:crypto';
import { rm } from 'node:fs/promises';
import type { z } from 'zod';
import { importSettings, type importResult } from '../../contract/http.ts';
import type { ImportReader } from '../import/import-reader.ts';
import { inTransaction, type Database } from '../../store/database.ts';
import { addRun, runById } from '../../store/runs.ts';
import { storeWhole } from '../../store/samples.ts';
import { setupById } from '../../store/setups.ts';
import { Refusal } from '../../core/refusal.ts';
import { found, settingsAs } from './answer.ts';
import { ToldAsItGoes } from './told-as-it-goes.ts';
import { HttpRefusal } from '../http-refusal.ts';
import { upload } from './upload.ts';
import type { ContractRoutes } from './contract-routes.ts';

/** Recordings from files: `file` holds the CSV, `settings` the importSettings as JSON. */
export function importRoutes(routes: ContractRoutes, database: Database, reader: ImportReader): void {
  routes.post('/imports', upload(200, 1, 'disk'), async (request, response) => {
    const { file } = request;
    if (!file) throw new HttpRefusal(400, 'No file came with the request.');
    try {
      const told = new ToldAsItGoes(request, response);
      told.end(201, await imported(file, settingsAs(request, importSettings), told, { database, reader }));
    } finally {
      await rm(file.path, { force: true });
    }
  });
}

/** Reads one recording and stores it. @throws HttpRefusal, Refusal; nothing is stored then */
async function imported(
  { path, originalname }: Express.Multer.File,
  { setupId, dyno, air, engineToDrumRatio, startedAt, gear, kind }: z.output<typeof importSettings>,
  told: ToldAsItGoes,
  { database, reader }: { database: Database; reader: ImportReader },
): Promise<z.input<typeof importResult>> {
  const setup = found(await setupById(database, setupId), 'setup');
  const {
    recording,
    remarks,
    air: ofFile,
    ...read
  } = await reader.read(
    path,
    { dyno, engineToDrumRatio, kind },
    { onProgress: (done) => told.tell({ doing: 'reading', done }), signal: told.signal },
  );
  told.tell({ doing: 'storing', done: 0 });
  const id = await inTransaction(database, async (client) => {
    const run = await addRun(client, {
      key: randomUUID(),
      bay: null,
      setup: { id: setup.id, jobId: setup.jobId },
      gear,
      startedAt,
      dyno,
      engineToDrumRatio,
      air: air ?? ofFile ?? null,
      airTakenAt: null,
      startTemperatures: read.startTemperatures,
      channels: recording.channels.map(({ name, unit }) => ({ name, unit })),
      source: originalname,
      kind: read.kind,
      device: '',
      plan: null,
      logs: [],
    });
    await storeWhole(client, run, recording, remarks);
    // Whoever cancels until here has stored nothing.
    if (told.signal.aborted) throw new Refusal('It was cancelled. Nothing was stored.');
    return run.id;
  });
  return { run: found(await runById(database, id), 'run'), remarks };
}
