import type { JobHeadline } from '../../core/figures/job-headline.ts';
import type { Queryable } from '../database/database.ts';

/** The form of a headline: one of another version is made anew. */
const version = 2;

/** What a job's headline rests on, as SQL over a row named `job`: its history, and the runs that are in it. */
export const headlineRestsOn = `'${version}.' || coalesce((select max(id) from history where job_id = job.id), 0) || '.' ||
  (select count(*) || '.' || coalesce(max(id), 0) from run where job_id = job.id and state <> 'recording')`;

/** So many jobs, the latest, have headlines: nobody looks further back in a list. */
const mostJobs = 300;

/** A job with runs whose headline is not that of what it is now; undefined where there is none. */
export async function nextWithoutHeadline(database: Queryable): Promise<number | undefined> {
  const { rows } = await database.query<{ id: string }>(
    `select job.id from (select * from job where last_run_at is not null order by last_run_at desc limit ${mostJobs}) as job
       left join job_headline on job_id = job.id
     where made_of is distinct from ${headlineRestsOn}
       and not exists (select from run where run.job_id = job.id and state = 'recording')
     order by job.last_run_at desc limit 1`,
  );
  return rows[0] && Number(rows[0].id);
}

export async function headlineRestsOnNow(database: Queryable, jobId: number): Promise<string> {
  const { rows } = await database.query<{ restsOn: string }>(
    `select ${headlineRestsOn} as "restsOn" from job where id = $1`,
    [jobId],
  );
  return rows[0]?.restsOn ?? '';
}

/** @param restsOn as it was before the figures were made: what was changed meanwhile makes it old at once */
export async function keepHeadline(
  database: Queryable,
  jobId: number,
  restsOn: string,
  headline: JobHeadline | null,
): Promise<void> {
  await database.query(
    `insert into job_headline (job_id, made_of, headline) values ($1, $2, $3)
     on conflict (job_id) do update set made_of = $2, headline = $3`,
    [jobId, restsOn, headline && JSON.stringify(headline)],
  );
}
