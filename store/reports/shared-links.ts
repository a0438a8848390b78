import { createHash, randomBytes } from 'node:crypto';
import { z } from 'zod';
import type { newSharedLink } from '../../contract/report/shared-link.ts';
import { sharedLink, type SharedLink } from '../../contract/report/shared-link.ts';
import { identifier } from '../../contract/values/parts.ts';
import { reportView } from '../../contract/report/report.ts';
import { Refusal } from '../../core/refusal.ts';
import type { Queryable } from '../database/database.ts';
import { recordOf } from '../database/rows.ts';

const columns = `shared_link.id, report_version_id, whom, ends_at, created_at,
  coalesce(times, 0) as opened, last_at as last_opened_at`;
const from = 'from shared_link left join shared_link_opened on shared_link_id = shared_link.id';
const holds = 'shared_link.removed_at is null and ends_at > now()';

const hashOf = (key: string) => createHash('sha256').update(key).digest('hex');

/** The links of a job that hold, the latest first. */
export async function sharedLinksOf(database: Queryable, jobId: number): Promise<SharedLink[]> {
  const { rows } = await database.query(`select ${columns} ${from} where job_id = $1 and ${holds} order by id desc`, [
    jobId,
  ]);
  return rows.map((row) => recordOf(sharedLink, row));
}

/** Makes a link. @returns its number and the key, which is nowhere stored @throws Refusal where the report is of another job or gone */
export async function addSharedLink(
  database: Queryable,
  jobId: number,
  { reportVersionId, whom, days, view }: z.output<typeof newSharedLink>,
): Promise<{ id: number; key: string }> {
  if (reportVersionId !== null) {
    const { rows } = await database.query(
      'select from report_version where id = $1 and job_id = $2 and removed_at is null',
      [reportVersionId, jobId],
    );
    if (rows.length === 0) throw new Refusal('There is no such kept report in this job: nothing was shared.');
  }
  const key = randomBytes(32).toString('base64url');
  const { rows } = await database.query(
    `insert into shared_link (job_id, report_version_id, view, key_hash, whom, ends_at)
     values ($1, $2, $3, $4, $5, now() + make_interval(days => $6)) returning id`,
    [jobId, reportVersionId, view, hashOf(key), whom, days],
  );
  return { id: identifier.parse(rows[0].id), key };
}

const openedLink = z.object({
  id: identifier,
  jobId: identifier,
  reportVersionId: identifier.nullable(),
  view: reportView,
  endsAt: sharedLink.shape.endsAt,
});
export type OpenedLink = z.infer<typeof openedLink>;

/** The link that a key opens, while it holds and what it shows is there. */
export async function linkOfKey(database: Queryable, key: string): Promise<OpenedLink | undefined> {
  const { rows } = await database.query(
    `select shared_link.id, shared_link.job_id, report_version_id, shared_link.view, ends_at from shared_link
     left join report_version on report_version.id = report_version_id
     where key_hash = $1 and ${holds} and report_version.removed_at is null`,
    [hashOf(key)],
  );
  return rows[0] && recordOf(openedLink, rows[0]);
}

/** Counts that a link was opened once more. */
export async function countOpening(database: Queryable, linkId: number): Promise<void> {
  await database.query(
    `insert into shared_link_opened (shared_link_id) values ($1)
     on conflict (shared_link_id) do update set times = shared_link_opened.times + 1, last_at = now()`,
    [linkId],
  );
}

/** A link that was taken back, by the hash of its key, and when. */
export interface TakenBackLink {
  keyHash: string;
  at: Date;
}

/** All links that were taken back. */
export async function takenBackLinks(database: Queryable): Promise<TakenBackLink[]> {
  const { rows } = await database.query<TakenBackLink>(
    'select key_hash as "keyHash", removed_at as at from shared_link where removed_at is not null',
  );
  return rows;
}

/** Takes links back that are there and hold, as of when they were. */
export async function takeLinksBack(database: Queryable, links: readonly TakenBackLink[]): Promise<void> {
  await database.query(
    `update shared_link set removed_at = taken.at
     from unnest($1::text[], $2::timestamptz[]) as taken (key_hash, at)
     where shared_link.key_hash = taken.key_hash and removed_at is null`,
    [links.map(({ keyHash }) => keyHash), links.map(({ at }) => at)],
  );
}
