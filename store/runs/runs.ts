import { fuelAfter, type FuelState } from '../../core/fuel/ledger.ts';
import { entriesOf } from '../database/entries.ts';
import { z } from 'zod';
import { run, type Run } from '../../contract/job/records.ts';
import { givenFields } from '../../contract/job/circumstances.ts';
import type { runChange } from '../../contract/job/job-requests.ts';
import { airOf } from '../../core/air/stated-air.ts';
import { setupLetter } from '../../core/setup/letter.ts';
import { ofThisShop } from './carried-history.ts';
import type { Queryable } from '../database/database.ts';
import type { NewRun } from '../../contract/bays/recorded-run.ts';
import { changeRow, recordOf } from '../database/rows.ts';

/** What is said of a run anew; where it goes is told by itself. */
type RunChanged = Omit<z.output<typeof runChange>, 'setupId'>;

const columns = `run.id, run.key, run.job_id as "jobId", setup_id as "setupId", run.number, setup.position, run.kind, run.state, run.gear,
    started_at as "startedAt", ended_at as "endedAt", set_aside_reason as "setAsideReason", run.note, dyno,
    engine_to_drum_ratio as "engineToDrumRatio", air, air_taken_at as "airTakenAt",
    fuel, former_labels as "formerLabels", start_temperatures as "startTemperatures", channels, samples, source, recorded_by as "recordedBy", remarks,
    device, plan, logs, bay, run.tyres, run.tyre_pressure_kpa as "tyrePressureKpa", run.fan, run.bonnet, load_mode as "loadMode",
    remounted, air_stated as "airStated", given`;
const joined = 'run left join setup on setup.id = run.setup_id';
const select = `select ${columns} from ${joined}`;

const runRow = run.omit({ label: true }).extend({ number: z.int().nullable(), position: z.int().nullable() });

function asRun(row: Record<string, unknown>): Run {
  const { number, position, ...rest } = recordOf(runRow, row);
  return { ...rest, label: position === null ? null : setupLetter(position) + number };
}

export async function runsOfJob(database: Queryable, jobId: number): Promise<Run[]> {
  const { rows } = await database.query<Record<string, unknown>>(
    `${select} where run.job_id = $1 order by run.started_at, run.id`,
    [jobId],
  );
  return rows.map(asRun);
}

export async function unclaimedRuns(database: Queryable): Promise<Run[]> {
  const { rows } = await database.query<Record<string, unknown>>(`${select} where run.job_id is null order by run.id`);
  return rows.map(asRun);
}

/** The check runs of an instrument that count, oldest first, with the vehicle that each was made with. */
export async function checkRuns(database: Queryable, device: string): Promise<(Run & { vehicle: string })[]> {
  const { rows } = await database.query<Record<string, unknown> & { vehicle: string }>(
    `select ${columns}, coalesce(vehicle.name, 'no job') as vehicle from ${joined}
     left join job on job.id = run.job_id left join vehicle on vehicle.id = job.vehicle_id
     where run.device = $1 and run.kind = 'check' and run.state <> 'recording' and set_aside_reason is null
       and ${ofThisShop}
     order by run.started_at, run.id`,
    [device],
  );
  return rows.map((row) => ({ ...asRun(row), vehicle: row.vehicle }));
}

export async function runById(database: Queryable, id: number): Promise<Run | undefined> {
  const { rows } = await database.query<Record<string, unknown>>(`${select} where run.id = $1`, [id]);
  return rows[0] && asRun(rows[0]);
}

/**
 * Enters a run that is being recorded, with a copy of what the fuel ledger says now; one that was entered before is
 * given back as it is. Numbers within a setup are given out once and never again.
 * @param recorder who records it; nobody for a file
 */
export async function addRun(database: Queryable, run: NewRun, recorder: string | null = null): Promise<Run> {
  const before = await database.query<Record<string, unknown>>(`${select} where run.key = $1`, [run.key]);
  if (before.rows[0]) return asRun(before.rows[0]);
  const { rows } = await database.query(
    `with numbered as (update setup set runs_numbered = runs_numbered + 1 where id = $1 returning id, job_id, runs_numbered)
     insert into run (job_id, setup_id, number, state, gear, started_at, dyno, engine_to_drum_ratio, air, air_taken_at,
       start_temperatures, channels, source, key, recorder, fuel, kind, device, plan, logs, bay,
       recorded_by, tyres, tyre_pressure_kpa, fan, bonnet)
     select (select job_id from numbered), (select id from numbered), (select runs_numbered from numbered),
       'recording', $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14, $15, $16, $17, $18, $19,
       nullif(car.tyres, ''), car.tyre_pressure_kpa, car.fan, car.bonnet
     from (select) as one left join (
       select vehicle.tyres, job.tyre_pressure_kpa, job.fan, job.bonnet
       from job join vehicle on vehicle.id = job.vehicle_id
       where job.id = (select job_id from setup where setup.id = $1)) as car on true
     returning id`,
    [
      run.setup?.id ?? null,
      run.gear,
      run.startedAt,
      run.dyno,
      run.engineToDrumRatio,
      run.air,
      run.airTakenAt,
      run.startTemperatures,
      JSON.stringify(run.channels),
      run.source,
      run.key,
      recorder,
      run.setup && (await fuelAt(database, run.setup.jobId, new Date(run.startedAt))),
      run.kind,
      run.device,
      run.plan && JSON.stringify(run.plan),
      JSON.stringify(run.logs),
      run.bay,
      run.recordedBy,
    ],
  );
  const added = await runById(database, rows[0].id);
  if (!added) throw new Error(`Run ${rows[0].id} was added and is not there.`);
  return added;
}

/**
 * Changes what people say about a run and what it was made under; its samples
 * stay as they are, and what was recorded is kept beside what is said now.
 * @returns false when there is no such run
 * @throws Refusal where the air stated cannot be
 */
export async function changeRun(database: Queryable, run: Run, change: RunChanged): Promise<boolean> {
  const { air, fuel, ...fields } = change;
  const asGiven = givenFields.flatMap((field) =>
    field in change && !(field in run.given) ? [[field, run[field]]] : [],
  );
  return changeRow(database, 'run', run.id, {
    ...fields,
    ...(air === undefined ? {} : { air: air && airOf(air), airStated: air, airTakenAt: change.airTakenAt ?? null }),
    ...(fuel === undefined ? {} : { fuel: fuel && { ...fuel, litres: null, from: 'stated', moving: false } }),
    ...(asGiven.length === 0 ? {} : { given: { ...Object.fromEntries(asGiven), ...run.given } }),
  });
}

/** Moves a run to a setup: it gets the setup's next number, and its old label stays as an alias. */
export async function moveRun(database: Queryable, run: Run, setupId: number): Promise<boolean> {
  if (run.setupId === setupId) return true;
  const { rowCount } = await database.query(
    `with numbered as (update setup set runs_numbered = runs_numbered + 1 where id = $2 returning id, job_id, runs_numbered)
     update run set job_id = numbered.job_id, setup_id = numbered.id, number = numbered.runs_numbered,
       former_labels = case when $3::text is null then former_labels else former_labels || $3::text end
     from numbered where run.id = $1`,
    [run.id, setupId, run.label],
  );
  return rowCount === 1;
}

/** What a job's ledger says of the tank at a moment; null where nothing is written down. */
async function fuelAt(database: Queryable, jobId: number, at: Date): Promise<FuelState | null> {
  const entries = (await entriesOf(database, 'fuelEntries', jobId))
    .map((entry) => ({ ...entry, at: new Date(entry.at) }))
    .filter((entry) => entry.at <= at);
  return entries.length > 0 ? fuelAfter(entries) : null;
}
