import type { PauseReason } from '../contract/day.ts';
import { type JobList, type JobSummary, jobSummary } from '../contract/records.ts';
import { waitingFor } from '../core/job/waiting.ts';
import { setupLetter } from '../core/setup/letter.ts';
import type { Queryable } from './database.ts';
import { recordOf } from './rows.ts';
import { patterns } from './vehicles.ts';

export interface JobSearch {
  search: string;
  state: 'all' | 'open' | 'paused' | 'closed';
  offset: number;
  most: number;
  /** Only these, where they are named. */
  ids?: readonly number[];
}

/** What a job is found by: its words and its vehicle's, and the notes of its runs. */
const matching = `
  from job join vehicle on vehicle.id = vehicle_id left join owner on owner.id = owner_id
  where ($2 = 'all' or job.state = $2) and ($5::bigint[] is null or job.id = any($5)) and (
    lower(vehicle.name || ' ' || plate || ' ' || coalesce(owner.name, '') || ' ' || question) like all($1)
    or (cardinality($1::text[]) > 0 and job.id in (
      select job_id from run where note <> '' and job_id is not null and lower(note) like all($1)
      union all select job_id from note where removed_at is null and lower(text) like all($1)
    )))`;

/** A page of the job list, the one touched last first, each with its next step. */
export async function jobList(database: Queryable, { search, state, offset, most, ids }: JobSearch): Promise<JobList> {
  const { rows } = await database.query(
    `with found as materialized (
       select job.id, coalesce(job.last_run_at, job.created_at) as touched ${matching}
     ), page as (
       select job.id, job.vehicle_id, vehicle.name as vehicle, plate, coalesce(owner.name, '') as owner, question,
         job.state, job.created_at, job.last_run_at, paused_for, paused_why, delivered_setup_id, touched
       from (select * from found order by touched desc, id desc offset $3 limit $4) as wanted
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
       newest.position, newest.decided, newest.newest_runs
     from counted left join page on true left join lateral (
       select position, decision is not null as decided, (select count(*)::int from run where setup_id = setup.id) as newest_runs
       from setup where job_id = page.id and removed_at is null order by position desc limit 1
     ) as newest on true
     order by touched desc, page.id desc`,
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
  const { id, vehicleId, vehicle, plate, owner, question, state, createdAt, lastRunAt, setups, runs } = recordOf(
    jobSummary.omit({ waiting: true }),
    row,
  );
  return {
    ...{ id, vehicleId, vehicle, plate, owner, question, state, createdAt, lastRunAt, setups, runs },
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
