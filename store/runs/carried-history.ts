import { checkHistory, type CheckHistoryRecord } from '../../contract/job/check-history.ts';
import type { Queryable } from '../database/database.ts';

/** Runs that were made here: an instrument of another shop may be called the same, and tells nothing of ours. */
export const ofThisShop = 'not exists (select from carried_history where carried_history.job_id = run.job_id)';

/** What the shop that a job came from knew of an instrument; undefined for a job of this shop, or another instrument. */
export async function carriedHistory(
  database: Queryable,
  jobId: number,
  device: string,
): Promise<CheckHistoryRecord | undefined> {
  const { rows } = await database.query<{ history: unknown }>(
    'select history from carried_history where job_id = $1 and device = $2',
    [jobId, device],
  );
  return rows[0] && checkHistory.parse(rows[0].history);
}

export async function keepCarriedHistory(
  database: Queryable,
  jobId: number,
  device: string,
  history: CheckHistoryRecord,
): Promise<void> {
  await database.query('insert into carried_history (job_id, device, history) values ($1, $2, $3)', [
    jobId,
    device,
    JSON.stringify(history),
  ]);
}
