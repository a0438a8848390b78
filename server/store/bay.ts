import type { Mounting } from '../../contract/http.ts';
import type { Queryable } from './database.ts';

/** Which job and setup are on the dyno, if any. */
export async function mountedJob(database: Queryable): Promise<Mounting | null> {
  const { rows } = await database.query('select job_id as "jobId", setup_id as "setupId" from bay');
  return rows[0]?.jobId ? rows[0] : null;
}

export async function mountJob(database: Queryable, mounting: Mounting | null): Promise<void> {
  await database.query('update bay set job_id = $1, setup_id = $2', [
    mounting?.jobId ?? null,
    mounting?.setupId ?? null,
  ]);
}
