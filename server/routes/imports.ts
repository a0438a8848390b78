import { randomUUID } from 'node:crypto';
import { importSettings } from '../../contract/http.ts';
import { problemIn } from '../../contract/files.ts';
import type { ImportReader } from '../import/import-reader.ts';
import { inTransaction, type Database } from '../../store/database.ts';
import { addRun, runById } from '../../store/runs.ts';
import { storeWhole } from '../../store/samples.ts';
import { setupById } from '../../store/setups.ts';
import { found } from './answer.ts';
import { jsonIn } from '../../contract/text.ts';
import { HttpRefusal } from '../http-refusal.ts';
import { upload } from './upload.ts';
import type { ContractRoutes } from './contract-routes.ts';

/** Recordings from files: `file` holds the CSV, `settings` the importSettings as JSON. */
export function importRoutes(routes: ContractRoutes, database: Database, reader: ImportReader): void {
  routes.post('/imports', upload(200, 1), async (request, response) => {
    const { file } = request;
    if (!file) throw new HttpRefusal(400, 'No file came with the request.');
    const settings = importSettings.safeParse(
      jsonIn((request.body as { settings?: string } | undefined)?.settings ?? ''),
    );
    if (!settings.success)
      throw new HttpRefusal(400, `The settings were not understood: ${problemIn(settings.error)}.`);
    const { setupId, dyno, air, engineToDrumRatio } = settings.data;
    const setup = found(await setupById(database, setupId), 'setup');
    const { recording, remarks, air: ofFile } = await reader.read(file.buffer, { dyno, engineToDrumRatio });
    const taken = air ?? ofFile ?? null;
    const id = await inTransaction(database, async (client) => {
      const run = await addRun(client, {
        key: randomUUID(),
        bay: null,
        setup: { id: setup.id, jobId: setup.jobId },
        gear: null,
        startedAt: new Date().toISOString(),
        dyno,
        engineToDrumRatio,
        air: taken,
        airTakenAt: null,
        startTemperatures: {},
        channels: recording.channels.map(({ name, unit }) => ({ name, unit })),
        source: file.originalname,
        kind: 'power',
        device: '',
        plan: null,
        logs: [],
      });
      await storeWhole(client, run, recording, remarks);
      return run.id;
    });
    response.status(201).json({ run: found(await runById(database, id), 'run'), remarks });
  });
}
