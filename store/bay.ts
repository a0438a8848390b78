import type { Mounting } from '../contract/http.ts';
import { deviceSettings, runPlan, type DeviceSettings, type RunPlan } from '../contract/recording.ts';
import type { Queryable } from './database.ts';

/** Which job and setup are on the dyno, if any. */
export async function mountedJob(database: Queryable): Promise<Mounting | null> {
  const { rows } = await database.query('select job_id as "jobId", setup_id as "setupId" from bay');
  return rows[0]?.jobId ? rows[0] : null;
}

export async function mountJob(database: Queryable, mounting: Mounting | null): Promise<void> {
  await database.query('update bay set job_id = $1, setup_id = $2', [
    mounting?.jobId ?? null,
    mounting?.setupId ?? null,
  ]);
}

/** What is to be recorded next, if anything was planned. */
export async function plannedRun(database: Queryable): Promise<RunPlan | null> {
  const { rows } = await database.query('select plan from bay');
  const stored = runPlan.safeParse(rows[0]?.plan);
  return stored.success ? stored.data : null;
}

export async function planRun(database: Queryable, plan: RunPlan): Promise<void> {
  await database.query('update bay set plan = $1', [JSON.stringify(plan)]);
}

/** What the shop has set of its instruments, by their names on the bench link. */
export async function allDeviceSettings(database: Queryable): Promise<Map<string, DeviceSettings>> {
  const { rows } = await database.query<{ device: string; settings: unknown }>('select device, settings from device_setting'); // prettier-ignore
  return new Map(rows.map(({ device, settings }) => [device, deviceSettings.parse(settings)]));
}

export async function saveDeviceSettings(database: Queryable, device: string, settings: DeviceSettings): Promise<void> {
  await database.query(
    `insert into device_setting (device, settings) values ($1, $2)
     on conflict (device) do update set settings = excluded.settings, changed_at = now()`,
    [device, JSON.stringify(settings)],
  );
}
