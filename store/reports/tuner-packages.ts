import { tunerPackage, type TunerPackage } from '../../contract/job/job-file.ts';
import type { Queryable } from '../database/database.ts';
import { insertRow, recordOf } from '../database/rows.ts';

/** What was sent to a remote tuner, the first first. */
export async function tunerPackagesOf(database: Queryable, jobId: number): Promise<TunerPackage[]> {
  const { rows } = await database.query(
    'select id, setup_id, runs, created_at from tuner_package where job_id = $1 and removed_at is null order by created_at, id',
    [jobId],
  );
  return rows.map((row) => recordOf(tunerPackage, row));
}

/** Writes down that runs were sent. @param setupId that of the last of them @returns its number */
export function addTunerPackage(
  database: Queryable,
  jobId: number,
  setupId: number | null,
  runs: number,
): Promise<number> {
  return insertRow(database, 'tuner_package', { jobId, setupId, runs });
}
