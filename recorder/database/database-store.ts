import type { Mounting } from '../../contract/bays/bay-requests.ts';
import type { CarOnDyno } from '../../contract/bays/recorded-run.ts';
import { setupLetter } from '../../core/setup/letter.ts';
import { allDeviceSettings, keepBays, saveDeviceSettings, storedBays } from '../../store/shop/bays.ts';
import { inTransaction, type Database } from '../../store/database/database.ts';
import { sealLeftOpen } from '../../store/runs/left-open.ts';
import {
  OtherDatabase as AnotherIdentity,
  PlaceLost,
  mustHold,
  takePlace,
  type RecorderPlace,
} from '../../store/database/recorder-place.ts';
import { databaseIdentity } from '../../store/database/database-identity.ts';
import { addRun, runById } from '../../store/runs/runs.ts';
import { appendChunk, rowsKept, sealRun } from '../../store/runs/samples.ts';
import { itemsUpTo } from '../../store/jobs/setups.ts';
import { Displaced, NeverTaken, OtherDatabase, type RecorderStore } from './recorder-store.ts';

/** The recorder's store in PostgreSQL, under the recorder's own lasting name. */
export function databaseStore(database: Database, recorder: string): RecorderStore {
  let held: RecorderPlace | undefined;
  const place = () => {
    if (!held) throw new PlaceLost();
    return held;
  };
  return {
    takePlace: (kept) =>
      told(async () => {
        held = await takePlace(database, recorder);
        await sealLeftOpen(database, recorder, kept);
        return held.database;
      }),
    addRun: (run) =>
      told(() =>
        inTransaction(database, async (client) => {
          await mustHold(client, place());
          return addRun(client, run, recorder);
        }),
      ),
    rowsKept: (run) => rowsKept(database, run.id),
    appendChunk: (run, source, from, columns) =>
      told(async () => {
        if (await appendChunk(database, place(), run.id, source, from, columns)) return;
        // Stored before, or no business of ours any more.
        await mustHold(database, place());
        const now = await runById(database, run.id);
        if (now?.state !== 'recording') throw new NeverTaken(`run ${run.id} has been ended by somebody else`);
      }),
    sealRun: (run, as, remarks) => told(() => sealRun(database, run, as, remarks, place())),
    identity: () => databaseIdentity(database),
    bays: () => storedBays(database),
    keepBays: (bays) => keepBays(database, bays),
    carOnDyno: (mounting) => carOnDyno(database, mounting),
    deviceSettings: () => allDeviceSettings(database),
    saveDeviceSettings: (device, settings) => saveDeviceSettings(database, device, settings),
  };
}

/** PostgreSQL's classes of errors that say that the data itself cannot be taken. */
const dataRefused = /^(22|23)/;

async function told<T>(work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    if (error instanceof PlaceLost) throw new Displaced(error.message);
    if (error instanceof AnotherIdentity) throw new OtherDatabase(error.message);
    if (dataRefused.test((error as { code?: string }).code ?? '')) throw new NeverTaken((error as Error).message);
    throw error;
  }
}

async function carOnDyno(database: Database, { jobId, setupId }: Mounting): Promise<CarOnDyno | undefined> {
  const { rows } = await database.query<Omit<CarOnDyno, 'letter' | 'items'> & { position: number }>(
    `select vehicle.id as "vehicleId", vehicle.name as vehicle, job.gear, setup.position
     from setup join job on job.id = setup.job_id join vehicle on vehicle.id = job.vehicle_id
     where setup.id = $1 and job.id = $2 and setup.removed_at is null`,
    [setupId, jobId],
  );
  if (!rows[0]) return undefined;
  const { position, ...car } = rows[0];
  return { ...car, letter: setupLetter(position), items: await itemsUpTo(database, setupId) };
}
