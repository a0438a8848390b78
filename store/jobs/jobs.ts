import type { z } from 'zod';
import type { PauseReason } from '../../contract/shop/day.ts';
import type { newJob } from '../../contract/job/job-requests.ts';
import { job, type Job } from '../../contract/job/records.ts';
import { Refusal } from '../../core/refusal.ts';
import { baselinesOf } from './baselines.ts';
import type { Database, Queryable } from '../database/database.ts';
import { consentsOfJob } from './consents.ts';
import { jobEntries } from '../database/entries.ts';
import { photosOfJob, tuneFilesOfJob } from './files.ts';
import { reportVersionsOf } from '../reports/report-versions.ts';
import { recordOf } from '../database/rows.ts';
import { tunerPackagesOf } from '../reports/tuner-packages.ts';
import { runsOfJob } from '../runs/runs.ts';
import { addSetup, setupsOfJob } from './setups.ts';
import { vehicleById, vehicleNamed } from '../shop/vehicles.ts';

const jobColumns = `id, vehicle_id, question, gear, state, paused_for, paused_why, paused_at, expected_at, use, target, not_wanted, claimed_value, claimed_unit,
  claimed_scale, claimed_source, deliverables, gentler_tune, wanted_percent, dyno_kind, tyre_pressure_kpa, fan,
  bonnet, pinned_channels, report, best_run_id, untested, delivered_setup_id,
  delivered_note, open_points, closed_at, created_at, last_run_at, revision`;

/** What the job's own row holds of it. */
const ownFields = job.omit({
  ...{ vehicle: true, plate: true, owner: true, car: true },
  ...{ setups: true, runs: true, bands: true, views: true, borrowedCurves: true, limits: true, inspections: true },
  ...{
    fuelEntries: true,
    suspicions: true,
    notes: true,
    workTimes: true,
    charges: true,
    consents: true,
    forecasts: true,
    targets: true,
    photos: true,
    tuneFiles: true,
    tunerPackages: true,
    reportVersions: true,
  },
  ...{ baseline: true, earlierBaselines: true },
});

/** A job with all that is in its file, or undefined: its own row, and the rest side by side. */
export async function jobWithAll(database: Database, id: number): Promise<Job | undefined> {
  const { rows } = await database.query(`select ${jobColumns} from job where id = $1`, [id]);
  if (!rows[0]) return undefined;
  const fields = recordOf(ownFields, rows[0]);
  const [car, setups, runs, entries, photos, tuneFiles, tunerPackages, consents, reportVersions, baselines] =
    await Promise.all([
      vehicleById(database, fields.vehicleId),
      setupsOfJob(database, id),
      runsOfJob(database, id),
      jobEntries(database, id),
      photosOfJob(database, id),
      tuneFilesOfJob(database, id),
      tunerPackagesOf(database, id),
      consentsOfJob(database, id),
      reportVersionsOf(database, id),
      baselinesOf(database, id),
    ]);
  if (!car) throw new Error(`job ${id} has no vehicle`);
  return {
    ...fields,
    vehicle: car.name,
    plate: car.plate,
    owner: car.ownerName,
    car,
    setups,
    runs,
    ...entries,
    photos,
    tuneFiles,
    tunerPackages,
    consents,
    reportVersions,
    baseline: baselines[0] ?? null,
    earlierBaselines: baselines.slice(1),
  };
}

/** @returns undefined where there is no such job */
export async function jobState(database: Queryable, id: number): Promise<Job['state'] | undefined> {
  const { rows } = await database.query<{ state: Job['state'] }>('select state from job where id = $1', [id]);
  return rows[0]?.state;
}

/** A new job with its first setup, the car as it came. @returns its id */
export async function addJob(database: Queryable, job: z.output<typeof newJob>): Promise<number> {
  const vehicleId = job.vehicleId ?? (await vehicleNamed(database, job.vehicle, job.owner));
  const { rows } = await database.query(
    'insert into job (vehicle_id, question, gear) values ($1, $2, $3) returning id',
    [vehicleId, job.question, job.gear],
  );
  await addSetup(database, rows[0].id, { parentId: null, change: 'As arrived', items: [] });
  return rows[0].id;
}

/** What a job is left with when it closes. */
export interface Delivery {
  deliveredSetupId: number | null;
  untested: string;
  deliveredNote: string;
  /** What is still open, in words. */
  openPoints: readonly string[];
}

/** What a job waits for while it is paused. */
export interface Pause {
  for: PauseReason;
  why: string;
  expectedAt: string | null;
}

/** Pauses, resumes, closes or reopens a job. What it was delivered with stays written when it is reopened. */
export async function setJobState(
  database: Queryable,
  id: number,
  state: 'open' | 'paused' | 'closed',
  { pause, delivery }: { pause?: Pause | undefined; delivery?: Delivery },
): Promise<boolean> {
  const { rows } = await database.query('select state from job where id = $1 for update', [id]);
  if (!rows[0]) return false;
  const { rows: running } = await database.query(`select 1 from run where job_id = $1 and state = 'recording'`, [id]);
  if (state === 'closed' && running.length > 0)
    throw new Refusal('A run of this job is being recorded. End it, then close the job.');
  await database.query(
    `update job set state = $2, paused_why = $3, paused_for = $9, paused_at = case when $2 = 'paused' then now() end,
       expected_at = $10, closed_at = case when $2 = 'closed' then now() end,
       delivered_setup_id = case when $4 then $5 else delivered_setup_id end,
       untested = case when $4 then $6 else untested end,
       delivered_note = case when $4 then $7 else delivered_note end,
       open_points = case when $4 then $8::jsonb else open_points end
     where id = $1`,
    [
      id,
      state,
      pause?.why ?? '',
      delivery !== undefined,
      delivery?.deliveredSetupId ?? null,
      delivery?.untested ?? '',
      delivery?.deliveredNote ?? '',
      JSON.stringify(delivery?.openPoints ?? []),
      pause?.for ?? null,
      pause?.expectedAt ?? null,
    ],
  );
  return true;
}
