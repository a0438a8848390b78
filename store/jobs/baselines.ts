import type { z } from 'zod';
import { baseline, type Baseline, type freezing } from '../../contract/job/job-file.ts';
import { Refusal } from '../../core/refusal.ts';
import type { Queryable } from '../database/database.ts';
import { parameter, recordOf } from '../database/rows.ts';

const select = `
  select setup_id, version, why, created_at, spread,
    array(select run_id from baseline_run where baseline_id = baseline.id order by run_id) as run_ids
  from baseline`;

/** The versions of a job's baseline, the one in force first; none where none was frozen. */
export async function baselinesOf(database: Queryable, jobId: number): Promise<Baseline[]> {
  const { rows } = await database.query(`${select} where job_id = $1 order by version desc`, [jobId]);
  return rows.map((row) => recordOf(baseline, row));
}

/** Freezes a list of a setup's runs as the job's next baseline version. */
export async function freezeBaseline(
  database: Queryable,
  jobId: number,
  { setupId, runIds, why, spread }: z.output<typeof freezing>,
): Promise<void> {
  await database.query('select id from job where id = $1 for update', [jobId]);
  const { rows: baselineRuns } = await database.query(
    `select id from run where job_id = $1 and setup_id = $2 and id = any($3) and state <> 'recording' and kind = 'power'`,
    [jobId, setupId, runIds],
  );
  if (baselineRuns.length !== new Set(runIds).size) {
    throw new Refusal('A baseline holds finished power runs of one setup; not all of these are. Choose them anew.');
  }
  const { rows } = await database.query(
    `insert into baseline (job_id, setup_id, version, why, spread)
     select $1, $2, coalesce(max(version), 0) + 1, $3, $4 from baseline where job_id = $1 returning id`,
    [jobId, setupId, why, parameter(spread)],
  );
  await database.query('insert into baseline_run (baseline_id, run_id) select $1, unnest($2::bigint[])', [
    rows[0].id,
    runIds,
  ]);
}
