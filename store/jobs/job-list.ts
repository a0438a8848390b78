import type { PauseReason } from '../../contract/shop/day.ts';
import { type JobList, type JobSummary, jobSummary } from '../../contract/job/records.ts';
import { waitingFor } from '../../core/job/waiting.ts';
import { setupLetter } from '../../core/setup/letter.ts';
import { headlineRestsOn } from './job-headlines.ts';
import type { Queryable } from '../database/database.ts';
import { recordOf } from '../database/rows.ts';
import { patterns } from '../shop/vehicles.ts';

export interface JobSearch {
  search: string;
  /** Of a job's state, or where it stands: on a dyno, waiting (neither on a dyno nor finished), finished. */
  state: JobFilter;
  offset: number;
  most: number;
  /** Only these, where they are named. */
  ids?: readonly number[];
}

export const jobFilters = ['all', 'dyno', 'waiting', 'finished', 'open', 'paused', 'closed'] as const;
export type JobFilter = (typeof jobFilters)[number];

const isOnDyno = 'job.id in (select job_id from bay where job_id is not null)';

/** What a job is found by: its words and its vehicle's, notes, setups, suspicions and files. */
const matching = `
  from job join vehicle on vehicle.id = vehicle_id left join owner on owner.id = owner_id
  where (case $2 when 'all' then true when 'dyno' then ${isOnDyno} when 'waiting' then job.state <> 'closed' and not ${isOnDyno}
    when 'finished' then job.state = 'closed' else job.state = $2 end) and ($5::bigint[] is null or job.id = any($5)) and (
    lower(vehicle.name || ' ' || plate || ' ' || coalesce(owner.name, '') || ' ' || question) like all($1)
    or (cardinality($1::text[]) > 0 and job.id in (
      select job_id from run where note <> '' and job_id is not null and lower(note) like all($1)
      union all select job_id from note where removed_at is null and lower(text) like all($1)
      union all select job_id from setup where removed_at is null and lower(change) like all($1)
      union all select job_id from suspicion where removed_at is null and lower(cause) like all($1)
      union all select job_id from setup_tune_file where removed_at is null and lower(name) like all($1)
    )))`;

/** A page of the job list, each with its next step: those on a dyno first and those that are finished last, the one touched last first. */
export async function jobList(database: Queryable, { search, state, offset, most, ids }: JobSearch): Promise<JobList> {
  const { rows } = await database.query(
    `with found as materialized (
       select job.id, coalesce(job.last_run_at, job.created_at) as touched,
         case when ${isOnDyno} then 0 when job.state = 'closed' then 2 else 1 end as stands ${matching}
     ), page as (
       select job.id, job.vehicle_id, vehicle.name as vehicle, plate, coalesce(owner.name, '') as owner, question,
         job.state, job.created_at, job.last_run_at, paused_for, paused_why, delivered_setup_id, touched, stands
       from (select * from found order by stands, touched desc, id desc offset $3 limit $4) as wanted
         join job on job.id = wanted.id join vehicle on vehicle.id = vehicle_id left join owner on owner.id = owner_id
     ), counted as (select count(*)::int as total from found)
     select counted.total, page.*,
       (select count(*)::int from run where job_id = page.id) as runs,
       (select count(*)::int from setup where job_id = page.id and removed_at is null) as setups,
       (select count(*)::int from inspection where job_id = page.id and outcome = 'fail' and removed_at is null) as failed,
       (select count(*)::int from run join setup on setup.id = setup_id where run.job_id = page.id and setup.position = 0
          and kind = 'power' and set_aside_reason is null) as baseline_runs,
       (select max(created_at) from tuner_package where job_id = page.id and removed_at is null) >
         coalesce((select max(created_at) from setup_tune_file where job_id = page.id and returned and removed_at is null), '-infinity') as with_tuner,
       newest.position, newest.decided, newest.newest_runs,
       (select headline from job_headline, job where job.id = page.id and job_id = job.id and made_of = ${headlineRestsOn}) as headline
     from counted left join page on true left join lateral (
       select position, decision is not null as decided, (select count(*)::int from run where setup_id = setup.id) as newest_runs
       from setup where job_id = page.id and removed_at is null order by position desc limit 1
     ) as newest on true
     order by stands, touched desc, page.id desc`,
    [patterns(search), state, offset, most, ids ?? null],
  );
  // A page beyond the end still says how many there are.
  return { jobs: rows.filter(({ id }) => id !== null).map(summaryOf), total: rows[0].total };
}

interface ListRow {
  state: JobSummary['state'];
  paused_for: PauseReason | null;
  paused_why: string;
  delivered_setup_id: number | null;
  question: string;
  failed: number;
  baseline_runs: number;
  position: number;
  decided: boolean;
  newest_runs: number;
  setups: number;
  /** Null where nothing was sent. */
  with_tuner: boolean | null;
}

function summaryOf(row: ListRow & Record<string, unknown>): JobSummary {
  const { paused_for, paused_why, delivered_setup_id, failed, baseline_runs, position, decided, newest_runs } = row;
  const { id, vehicleId, vehicle, plate, owner, question, state, createdAt, lastRunAt, setups, runs, headline } =
    recordOf(jobSummary.omit({ waiting: true }), row);
  return {
    ...{ id, vehicleId, vehicle, plate, owner, question, state, createdAt, lastRunAt, setups, runs, headline },
    waiting: waitingFor({
      state: row.state,
      pausedFor: paused_for,
      pausedWhy: paused_why,
      question: row.question,
      baselineRuns: baseline_runs,
      newestLetter: setupLetter(position),
      newestRuns: newest_runs,
      newestDecided: decided,
      setups: row.setups,
      failedInspection: failed,
      delivered: delivered_setup_id !== null,
      withTuner: row.with_tuner ?? false,
    }),
  };
}
