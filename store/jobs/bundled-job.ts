import type { BundledJob, BundleWishes } from '../../contract/job/bundle.ts';
import type { CheckHistoryRecord } from '../../contract/job/check-history.ts';
import type { Job } from '../../contract/job/records.ts';
import type { Database } from '../database/database.ts';
import { reportVersionById } from '../reports/report-versions.ts';
import { handsOfJob } from './consents.ts';
import { vehicleWithAll } from '../shop/vehicles.ts';

/** Keys by which a job and its runs are known wherever they are. */
export interface JobKeys {
  job: string;
  runs: Record<string, string>;
}

export async function keysOfJob(database: Database, jobId: number): Promise<JobKeys> {
  const { rows: jobs } = await database.query<{ key: string }>('select key from job where id = $1', [jobId]);
  const { rows } = await database.query<{ id: number; key: string }>('select id, key from run where job_id = $1', [
    jobId,
  ]);
  return { job: jobs[0]!.key, runs: Object.fromEntries(rows.map(({ id, key }) => [id, key])) };
}

/** How many letters and numbers a job has given out, those of what was taken away among them. */
export async function countedOfJob(database: Database, jobId: number): Promise<BundledJob['counted']> {
  const { rows: jobs } = await database.query<{ n: number }>('select setups_lettered as n from job where id = $1', [
    jobId,
  ]);
  const { rows } = await database.query<{ id: number; n: number }>(
    'select id, runs_numbered as n from setup where job_id = $1',
    [jobId],
  );
  return { setupsLettered: jobs[0]!.n, runsNumbered: Object.fromEntries(rows.map(({ id, n }) => [id, n])) };
}

/** What travels of a job beside its recordings, photos and tune files. @param learned by instrument */
export async function bundledJobOf(
  database: Database,
  job: Job,
  keys: JobKeys,
  learned: Record<string, CheckHistoryRecord>,
  { setupIds, withOwner }: BundleWishes,
): Promise<BundledJob> {
  const vehicle = await vehicleWithAll(database, job.vehicleId);
  const whole = withOwner ? job : withoutOwner(job);
  const goes = partOf(whole, setupIds);
  const reports = await Promise.all(goes.reportVersions.map(({ id }) => reportVersionById(database, id)));
  return {
    job: goes,
    owner: withOwner ? (vehicle?.owner ?? null) : null,
    parts: vehicle?.parts ?? [],
    counted: await countedOfJob(database, job.id),
    runKeys: Object.fromEntries(goes.runs.map(({ id }) => [id, keys.runs[id]!])),
    reports: reports.filter((version) => version !== undefined),
    learned,
    hands: withOwner ? await handsOfJob(database, job.id) : {},
  };
}

/** Kept reports name the owner wherever somebody wrote the name, and consents are signed by them: both are left out as a whole. */
function withoutOwner(job: Job): Job {
  const nobody = { plate: '', owner: '' };
  const car = { ...job.car, plate: '', ownerId: null, ownerName: '' };
  return { ...job, ...nobody, car, reportVersions: [], consents: [] };
}

/** The job with the runs of some setups; whatever speaks of a run that stays behind speaks of it no more. */
function partOf(job: Job, setupIds: readonly number[] | null): Job {
  // A run that is being recorded has no end yet.
  const runs = job.runs.filter(
    (run) => run.state !== 'recording' && (!setupIds || setupIds.includes(run.setupId ?? 0)),
  );
  const goes = new Set(runs.map(({ id }) => id));
  if (goes.size === job.runs.length) return job;
  const [baseline, ...earlierBaselines] = [job.baseline, ...job.earlierBaselines].filter((one) =>
    one?.runIds.every((id) => goes.has(id)),
  );
  return {
    ...job,
    runs,
    bestRunId: job.bestRunId !== null && goes.has(job.bestRunId) ? job.bestRunId : null,
    suspicions: job.suspicions.map((one) => ({ ...one, runIds: one.runIds.filter((id) => goes.has(id)) })),
    baseline: baseline ?? null,
    earlierBaselines: earlierBaselines.filter((one) => one !== null && one !== undefined),
    reportVersions: [],
  };
}
