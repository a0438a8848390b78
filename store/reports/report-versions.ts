import type { z } from 'zod';
import { reportVersion, wholeReportVersion, type ReportVersion } from '../../contract/report/report.ts';
import type { Queryable } from '../database/database.ts';
import { recordOf } from '../database/rows.ts';

type WholeReportVersion = z.infer<typeof wholeReportVersion>;
type NewVersion = Omit<WholeReportVersion, 'id' | 'number' | 'createdAt'>;

const columns = 'report_version.id, number, note, view, rests_on, report_version.created_at';

/** The reports of a job that were kept and not taken away, the first first. */
export async function reportVersionsOf(database: Queryable, jobId: number): Promise<ReportVersion[]> {
  const { rows } = await database.query(
    `select ${columns} from report_version where job_id = $1 and removed_at is null order by number`,
    [jobId],
  );
  return rows.map((row) => recordOf(reportVersion, row));
}

/** A kept report with all that it says. */
export async function reportVersionById(database: Queryable, id: number): Promise<WholeReportVersion | undefined> {
  const { rows } = await database.query(
    `select ${columns}, job_id, draft, written from report_version
     join report_version_content on report_version_id = report_version.id
     where report_version.id = $1 and removed_at is null`,
    [id],
  );
  return rows[0] && recordOf(wholeReportVersion, rows[0]);
}

/** Keeps a report as the next version of its job. @param as its number and moment, where it was kept elsewhere @returns its id */
export async function addReportVersion(
  database: Queryable,
  version: NewVersion,
  as?: Pick<ReportVersion, 'number' | 'createdAt'>,
): Promise<number> {
  // Two at once count one after the other.
  await database.query('select 1 from job where id = $1 for update', [version.jobId]);
  const { rows } = await database.query(
    `insert into report_version (job_id, number, note, view, rests_on, created_at)
     select $1, coalesce($5, 1 + coalesce(max(number), 0)), $2, $3, $4, coalesce($6, now())
     from report_version where job_id = $1 returning id`,
    [version.jobId, version.note, version.view, JSON.stringify(version.restsOn), as?.number, as?.createdAt],
  );
  await database.query('insert into report_version_content (report_version_id, draft, written) values ($1, $2, $3)', [
    rows[0].id,
    version.draft && JSON.stringify(version.draft),
    JSON.stringify(version.written),
  ]);
  return rows[0].id;
}
