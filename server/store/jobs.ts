import type { Job, JobSummary } from '../../contract/records.ts';
import type { jobChange, newJob } from '../../contract/http.ts';
import type { z } from 'zod';
import type { Queryable } from './database.ts';
import { addSetup, setupsOfJob } from './setups.ts';
import { runsOfJob } from './runs.ts';

type JobFields = z.output<typeof newJob>;

const summary = `
  select job.id, vehicle, owner, question, job.created_at as "createdAt",
    (select count(*)::int from setup where setup.job_id = job.id) as setups,
    (select count(*)::int from run where run.job_id = job.id) as runs,
    (select max(started_at) from run where run.job_id = job.id) as "lastRunAt"
  from job`;

/** All jobs, the one touched last first. */
export async function jobSummaries(database: Queryable): Promise<JobSummary[]> {
  const { rows } = await database.query(
    `${summary} order by coalesce((select max(started_at) from run where run.job_id = job.id), job.created_at) desc, job.id desc`,
  );
  return rows.map(withMoments);
}

/** A job with its setups and runs, or undefined. */
export async function jobWithAll(database: Queryable, id: number): Promise<Job | undefined> {
  const { rows } = await database.query(
    `select id, vehicle, owner, question, gear, created_at as "createdAt",
       (select max(started_at) from run where run.job_id = job.id) as "lastRunAt"
     from job where id = $1`,
    [id],
  );
  if (!rows[0]) return undefined;
  return { ...withMoments(rows[0]), setups: await setupsOfJob(database, id), runs: await runsOfJob(database, id) };
}

function withMoments<T extends { createdAt: Date; lastRunAt: Date | null }>(row: T) {
  return { ...row, createdAt: row.createdAt.toISOString(), lastRunAt: row.lastRunAt?.toISOString() ?? null };
}

/** A new job with its first setup, the car as it came. @returns its id */
export async function addJob(database: Queryable, job: JobFields): Promise<number> {
  const { rows } = await database.query(
    'insert into job (vehicle, owner, question, gear) values ($1, $2, $3, $4) returning id',
    [job.vehicle, job.owner, job.question, job.gear],
  );
  await addSetup(database, rows[0].id, { parentId: null, change: 'As arrived' });
  return rows[0].id;
}

/** Changes the fields given. @returns false when there is no such job */
export async function changeJob(database: Queryable, id: number, change: z.output<typeof jobChange>): Promise<boolean> {
  const { rowCount } = await database.query(
    `update job set vehicle = coalesce($2, vehicle), owner = coalesce($3, owner), question = coalesce($4, question),
       gear = case when $5 then $6 else gear end
     where id = $1`,
    [id, change.vehicle, change.owner, change.question, 'gear' in change, change.gear ?? null],
  );
  return rowCount === 1;
}
