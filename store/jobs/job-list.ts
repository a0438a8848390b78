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

/** Where each word must stand for a piece of a job to be found by it: its index is by three letters (migration 0040). */
const holdsAll = (text: string, words: readonly string[]) =>
  ['true', ...words.map((_, index) => `${text} like ($1::text[])[${index + 1}]`)].join(' and ');

/** What else than its own words and its car's a job is found by, each with what it must not be. */
const pieces = [
  { table: 'run', text: 'lower(note)', counts: "note <> '' and job_id is not null" },
  { table: 'note', text: 'lower(text)', counts: 'removed_at is null' },
  { table: 'setup', text: 'lower(change)', counts: 'removed_at is null' },
  { table: 'suspicion', text: 'lower(cause)', counts: 'removed_at is null' },
  { table: 'setup_tune_file', text: 'lower(name)', counts: 'removed_at is null' },
];

/** Jobs that are found, as SQL: by their question and their car's words together, or by one piece that holds every word. */
function matching(words: readonly string[]): string {
  const own = words.map((_, index) => `(car.words || ' ' || lower(question)) like ($1::text[])[${index + 1}]`);
  const byPiece = pieces.map(
    ({ table, text, counts }) => `select job_id from ${table} where ${counts} and ${holdsAll(text, words)}`,
  );
  const found =
    words.length === 0
      ? 'cardinality($1::text[]) = 0'
      : `((${own.join(' and ')}) or job.id in (${byPiece.join(' union all ')}))`;
  return `
    from job join (
      select vehicle.id, lower(vehicle.name || ' ' || plate || ' ' || coalesce(owner.name, '')) as words
      from vehicle left join owner on owner.id = owner_id offset 0
    ) as car on car.id = vehicle_id
    where (case $2 when 'all' then true when 'dyno' then ${isOnDyno} when 'waiting' then job.state <> 'closed' and not ${isOnDyno}
      when 'finished' then job.state = 'closed' else job.state = $2 end)
      and ($5::bigint[] is null or job.id = any($5)) and ${found}`;
}

/** A page of the job list, each with its next step: those on a dyno first and those that are finished last, the one touched last first. */
export async function jobList(database: Queryable, { search, state, offset, most, ids }: JobSearch): Promise<JobList> {
  const words = patterns(search);
  const { rows } = await database.query(
    `with found as materialized (
       select job.id, coalesce(job.last_run_at, job.created_at) as touched,
         case when ${isOnDyno} then 0 when job.state = 'closed' then 2 else 1 end as stands ${matching(words)}
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
    [words, state, offset, most, ids ?? null],
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
