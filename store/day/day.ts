import { z } from 'zod';
import { dayJob, dayRun, stateAct, workTime, type Day, type DayJob } from '../../contract/shop/day.ts';
import { setupLetter } from '../../core/setup/letter.ts';
import { bookingsBetween } from './bookings.ts';
import type { Database, Queryable } from '../database/database.ts';
import { jobList } from '../jobs/job-list.ts';
import { recordOf } from '../database/rows.ts';

/** So many jobs are told of at most; more wait in no shop. */
const mostJobs = 200;

/** What is booked and what was done in a stretch of time, and every job that is on a dyno or waits. */
export async function dayBetween(database: Database, from: string, to: string): Promise<Day> {
  const [bookings, runs, states, workTimes, counts] = await Promise.all([
    bookingsBetween(database, from, to),
    runsBetween(database, from, to),
    statesBetween(database, from, to),
    workTimesBetween(database, from, to),
    countsBetween(database, from, to),
  ]);
  const { rows } = await database.query<{ id: number }>(
    `select id from job where id = any($1) or id in (select job_id from bay where job_id is not null)
       or state = 'paused' or (state = 'closed' and closed_at >= $2 and closed_at < $3)
       or (state = 'open' and id in (select job_id from tuner_package where removed_at is null))
       or (state = 'open' and id in (select job_id from inspection where outcome = 'fail' and removed_at is null))
     order by coalesce(last_run_at, created_at) desc limit ${mostJobs}`,
    [[...bookings.map(({ jobId }) => jobId), ...runs.map(({ jobId }) => jobId)].filter((id) => id !== null), from, to],
  );
  const jobs = await jobsOfDay(
    database,
    rows.map(({ id }) => Number(id)),
  );
  return { bookings, jobs, runs, states, workTimes, ...counts };
}

async function jobsOfDay(database: Queryable, ids: readonly number[]): Promise<DayJob[]> {
  if (ids.length === 0) return [];
  const { jobs } = await jobList(database, { search: '', state: 'all', offset: 0, most: mostJobs, ids });
  const { rows } = await database.query<Record<string, unknown> & { id: number }>(
    `select job.id, coalesce(owner.contact, '') as contact, job.paused_for, job.paused_why, job.paused_at, job.expected_at, job.closed_at,
       (select max(created_at) from tuner_package where job_id = job.id and removed_at is null and created_at >
         coalesce((select max(created_at) from setup_tune_file where job_id = job.id and returned and removed_at is null), '-infinity')) as sent_at,
       coalesce((select json_agg(case when note = '' then key else note end order by id) from inspection
         where job_id = job.id and outcome = 'fail' and removed_at is null), '[]') as failed,
       (select max(at) from history where subject = 'inspection' and job_id = job.id and after ->> 'outcome' = 'fail') as failed_at
     from job join vehicle on vehicle.id = vehicle_id left join owner on owner.id = owner_id where job.id = any($1)`,
    [ids],
  );
  const more = new Map(rows.map((row) => [Number(row.id), row]));
  return jobs.map((job) => recordOf(dayJob, { ...job, ...more.get(job.id), id: job.id }));
}

async function runsBetween(database: Queryable, from: string, to: string): Promise<Day['runs']> {
  const { rows } = await database.query(
    `select run.id, run.job_id, setup.position, run.number, run.bay, run.started_at, run.ended_at
     from run join setup on setup.id = run.setup_id
     where run.started_at >= $1 and run.started_at < $2 and run.job_id is not null and run.bay is not null order by run.started_at`,
    [from, to],
  );
  return rows.map(({ position, number, ...row }) => {
    const letter = setupLetter(Number(position));
    return recordOf(dayRun, { ...row, letter, label: `${letter}${Number(number)}` });
  });
}

/** Changes of jobs' states in a stretch of time. */
async function statesBetween(database: Queryable, from: string, to: string): Promise<Day['states']> {
  const { rows } = await database.query(
    `select row_id as job_id, at, after ->> 'state' as state, coalesce(after ->> 'paused_why', '') as why
     from history where subject = 'job' and after ? 'state' and before is not null and at >= $1 and at < $2 order by id`,
    [from, to],
  );
  return rows.map((row) => recordOf(stateAct, row));
}

async function workTimesBetween(database: Queryable, from: string, to: string): Promise<Day['workTimes']> {
  const { rows } = await database.query(
    `select id, revision, job_id, bay, starts_at, ends_at, why from work_time
     where removed_at is null and starts_at < $2 and ends_at > $1 order by starts_at, id`,
    [from, to],
  );
  return rows.map((row) => recordOf(workTime.safeExtend({ jobId: z.int() }), row));
}

async function countsBetween(
  database: Queryable,
  from: string,
  to: string,
): Promise<Pick<Day, 'unclaimedRuns' | 'tuneFiles'>> {
  const { rows } = await database.query<{ unclaimedRuns: number; tuneFiles: number }>(
    `select (select count(*)::int from run where job_id is null) as "unclaimedRuns",
       (select count(*)::int from setup_tune_file where removed_at is null and created_at >= $1 and created_at < $2) as "tuneFiles"`,
    [from, to],
  );
  return rows[0]!;
}
