import type { Mounting } from '../../contract/http.ts';
import { setupLetter } from '../../core/setup/letter.ts';
import type { CarOnDyno, RecorderStore } from '../../recorder/recorder-store.ts';
import { allDeviceSettings, mountedJob, mountJob, plannedRun, planRun, saveDeviceSettings } from './bay.ts';
import type { Database } from './database.ts';
import { addRun } from './runs.ts';
import { appendChunk, sealRun } from './samples.ts';
import { itemsUpTo } from './setups.ts';

/** The recorder's store in PostgreSQL. */
export function recorderStore(database: Database): RecorderStore {
  return {
    addRun: (beginning) => addRun(database, beginning),
    appendChunk: (runId, source, sequence, columns) => appendChunk(database, runId, source, sequence, columns),
    sealRun: (run, as, remarks) => sealRun(database, run, as, remarks),
    mounted: () => mountedJob(database),
    mount: (mounting) => mountJob(database, mounting),
    plan: () => plannedRun(database),
    setPlan: (plan) => planRun(database, plan),
    carOnDyno: (mounting) => carOnDyno(database, mounting),
    deviceSettings: () => allDeviceSettings(database),
    saveDeviceSettings: (device, settings) => saveDeviceSettings(database, device, settings),
  };
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
