import type { Mounting } from '../../contract/bays/bay-requests.ts';
import { deviceSettings, runPlan, type DeviceSettings, type RunPlan } from '../../contract/instruments/recording.ts';
import { inTransaction, type Database, type Queryable } from '../database/database.ts';

/** A bay as the database has it, a copy for a recorder that begins anew. */
export interface StoredBay {
  bay: number;
  name: string;
  mounted: Mounting | null;
  plan: RunPlan | null;
}

/** All bays, by their numbers. */
export async function storedBays(database: Queryable): Promise<StoredBay[]> {
  const { rows } = await database.query<{
    bay: number;
    name: string;
    jobId: number | null;
    setupId: number | null;
    plan: unknown;
  }>('select id as bay, name, job_id as "jobId", setup_id as "setupId", plan from bay order by id');
  return rows.map(({ bay, name, jobId, setupId, plan }) => {
    const planned = runPlan.safeParse(plan);
    return {
      bay,
      name,
      mounted: jobId === null || setupId === null ? null : { jobId, setupId },
      plan: planned.success ? planned.data : null,
    };
  });
}

/** Makes the database's copy the same as these bays. */
export async function keepBays(database: Database, bays: readonly StoredBay[]): Promise<void> {
  await inTransaction(database, async (client) => {
    await client.query('delete from bay where id <> all($1)', [bays.map(({ bay }) => bay)]);
    for (const { bay, name, mounted, plan } of bays)
      await client.query(
        `insert into bay (id, name, job_id, setup_id, plan) values ($1, $2, $3, $4, $5)
         on conflict (id) do update set name = $2, job_id = $3, setup_id = $4, plan = $5`,
        [bay, name, mounted?.jobId ?? null, mounted?.setupId ?? null, plan && JSON.stringify(plan)],
      );
  });
}

/** What the shop has set of its instruments, by their names on the bench link. */
export async function allDeviceSettings(database: Queryable): Promise<Map<string, DeviceSettings>> {
  const { rows } = await database.query<{ device: string; settings: unknown }>(
    'select device, settings from device_setting',
  );
  return new Map(rows.map(({ device, settings }) => [device, deviceSettings.parse(settings)]));
}

export async function saveDeviceSettings(database: Queryable, device: string, settings: DeviceSettings): Promise<void> {
  await database.query(
    `insert into device_setting (device, settings) values ($1, $2)
     on conflict (device) do update set settings = excluded.settings, changed_at = now()`,
    [device, JSON.stringify(settings)],
  );
}
