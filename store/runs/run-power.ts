import { z } from 'zod';
import { repeatSpread } from '../../core/run-kinds/repeat-spread.ts';
import { setupLetter } from '../../core/setup/letter.ts';
import type { Repeats } from '../../core/statistics/spread-prior.ts';
import type { Queryable } from '../database/database.ts';
import { ofThisShop } from './carried-history.ts';

/** What is stored was made by this version of the arithmetic; older ones are made anew. */
export const powerVersion = 2;
/** So many setups, the latest, tell of the spread: a shop changes over the years. */
const mostSetups = 60;

/** A run's corrected power on an even grid. */
export interface RunPower {
  fromRpm: number;
  stepRpm: number;
  powerKw: number[];
}

/**
 * The latest counted run of a repeated setup whose power is not stored yet, or else was made by an older version;
 * undefined where there is none.
 */
export async function nextWithoutPower(database: Queryable): Promise<number | undefined> {
  const { rows } = await database.query<{ id: string | null }>(
    `select coalesce(
       (select run.id from run_power_wanted join run on run.id = run_id
        where run.kind = 'power' and run.state <> 'recording' and run.set_aside_reason is null
          and exists (select from run other where other.setup_id = run.setup_id and other.id <> run.id
            and other.kind = 'power' and other.set_aside_reason is null)
        order by run_id desc limit 1),
       (select run_id from run_power where version < $1 order by version, run_id desc limit 1)) as id`,
    [powerVersion],
  );
  const id = rows[0]?.id ?? null;
  return id === null ? undefined : Number(id);
}

/** Stores a run's power; null where no curve can be made of it. */
export async function keepPower(database: Queryable, runId: number, power: RunPower | null): Promise<void> {
  await database.query(
    `with done as (delete from run_power_wanted where run_id = $1)
     insert into run_power (run_id, version, from_rpm, step_rpm, power_kw) values ($1, $2, $3, $4, $5)
     on conflict (run_id) do update set version = $2, from_rpm = $3, step_rpm = $4, power_kw = $5`,
    [runId, powerVersion, power?.fromRpm, power?.stepRpm, power?.powerKw],
  );
}

/** As somebody in the shop would name a day. */
const day = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', year: 'numeric' });

const powerRow = z.object({
  setup_id: z.coerce.number(),
  position: z.coerce.number(),
  vehicle: z.string(),
  gear: z.string().nullable(),
  started_at: z.date(),
  same_vehicle: z.boolean(),
  place: z.coerce.number(),
  from_rpm: z.number(),
  step_rpm: z.number(),
  power_kw: z.array(z.number()),
});

/**
 * Repeats of setups on an instrument, of the latest jobs.
 * @param exceptJob its own repeats are counted by themselves
 */
export async function repeatsOn(
  database: Queryable,
  device: string,
  exceptJob: number | undefined,
): Promise<Repeats[]> {
  const { rows } = await database.query(
    `select run.setup_id, setup.position, coalesce(vehicle.name, '') as vehicle, run.gear, run.started_at, from_rpm, step_rpm, power_kw,
       (select count(*) from run earlier where earlier.job_id = run.job_id and earlier.started_at < run.started_at) as place,
       coalesce(job.vehicle_id = (select vehicle_id from job where id = $2), false) as same_vehicle
     from run join run_power on run_power.run_id = run.id join setup on setup.id = run.setup_id left join job on job.id = run.job_id
       left join vehicle on vehicle.id = job.vehicle_id
     where run.device = $1 and run.job_id is distinct from $2 and ${ofThisShop} and power_kw is not null and set_aside_reason is null
       and run.kind = 'power' and run_power.version = $3
       and run.setup_id in (select setup_id from run where device = $1 and job_id is distinct from $2 and kind = 'power'
         group by setup_id having count(*) > 1 order by setup_id desc limit $4)
     order by run.started_at`,
    [device, exceptJob ?? null, powerVersion, mostSetups],
  );
  const setups = new Map<string, z.infer<typeof powerRow>[]>();
  for (const row of z.array(powerRow).parse(rows)) {
    const key = `${row.setup_id}/${row.gear ?? ''}`;
    setups.set(key, [...(setups.get(key) ?? []), row]);
  }
  return [...setups.values()].flatMap((runs) => {
    const spread = repeatSpread(
      runs.map(({ started_at, place, from_rpm, step_rpm, power_kw }) => ({
        atMs: started_at.getTime(),
        place,
        engineSpeedRpm: Float64Array.from(power_kw, (_, index) => from_rpm + index * step_rpm),
        powerKw: Float64Array.from(power_kw),
      })),
    );
    const [first] = runs;
    if (!spread || !first) return [];
    const of = `${setupLetter(first.position)} of ${day.format(first.started_at)}`;
    return [{ ...spread, of, car: first.vehicle, ...(first.same_vehicle ? { sameVehicle: true } : {}) }];
  });
}
