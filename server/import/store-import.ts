import { randomUUID } from 'node:crypto';
import type { z } from 'zod';
import type { importSettings, importResult } from '../../contract/job/job-requests.ts';
import { Refusal } from '../../core/refusal.ts';
import { inTransaction, type Database } from '../../store/database/database.ts';
import { addRun, runById } from '../../store/runs/runs.ts';
import { storeWhole } from '../../store/runs/samples.ts';
import { setupById } from '../../store/jobs/setups.ts';
import { HttpRefusal } from '../http-refusal.ts';
import type { ImportReader } from './import-reader.ts';

/** How an import is told of and ended. */
export interface ImportWatch {
  tell: (doing: { doing: 'reading' | 'storing'; done: number }) => void;
  signal: AbortSignal;
}

/**
 * Reads one recording and stores it as a run.
 * @param file where it lies and what it is called
 * @throws HttpRefusal, Refusal; nothing is stored then
 */
export async function storeImport(
  file: { path: string; name: string },
  { setupId, dyno, air, engineToDrumRatio, startedAt, gear, kind }: z.output<typeof importSettings>,
  watch: ImportWatch,
  { database, reader }: { database: Database; reader: ImportReader },
): Promise<z.input<typeof importResult>> {
  const setup = await setupById(database, setupId);
  if (!setup) throw new HttpRefusal(404, 'There is no such setup.');
  const {
    recording,
    remarks,
    air: ofFile,
    ...read
  } = await reader.read(
    file.path,
    { dyno, engineToDrumRatio, kind },
    { onProgress: (done) => watch.tell({ doing: 'reading', done }), signal: watch.signal },
  );
  watch.tell({ doing: 'storing', done: 0 });
  const id = await inTransaction(database, async (client) => {
    const run = await addRun(client, {
      key: randomUUID(),
      bay: null,
      recordedBy: '',
      setup: { id: setup.id, jobId: setup.jobId },
      database: null,
      gear,
      startedAt,
      dyno,
      engineToDrumRatio,
      air: air ?? ofFile ?? null,
      airTakenAt: null,
      startTemperatures: read.startTemperatures,
      channels: recording.channels.map(({ name, unit }) => ({ name, unit })),
      source: file.name,
      kind: read.kind,
      device: '',
      plan: null,
      logs: [],
    });
    await storeWhole(client, run, recording, remarks);
    // Whoever cancels until here has stored nothing.
    if (watch.signal.aborted) throw new Refusal('It was cancelled. Nothing was stored.');
    return run.id;
  });
  const run = await runById(database, id);
  if (!run) throw new Error(`run ${id} was stored and is not there`);
  return { run, remarks };
}
