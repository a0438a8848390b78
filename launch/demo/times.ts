import pg from 'pg';

/** Tables whose rows say when they were made; their triggers would take the correction for an act. */
const dated = [
  'job',
  'setup',
  'setup_tune_file',
  'vehicle',
  'vehicle_part',
  'owner',
  'band',
  'job_limit',
  'inspection',
  'fuel_entry',
  'suspicion',
  'note',
  'booking',
  'target',
  'forecast',
  'charge',
] as const;
/** Moments of acts that a row and its history keep. */
const moments = [
  ['job', 'closed_at'],
  ['job', 'paused_at'],
  ['setup', 'decided_at'],
] as const;

/**
 * Gives the acts of the demo days the scenario's own times, where the database
 * wrote down those of the playing. Only for a database in which nobody but the
 * demo has written yet.
 *
 * @param acts when in the scenario each act was done, by its number
 */
export async function setActTimes(databaseUrl: string, acts: ReadonlyMap<number, Date>): Promise<void> {
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  try {
    await client.query('begin');
    await client.query(
      `update history set at = told.at from unnest($1::bigint[], $2::timestamptz[]) as told (act, at)
       where history.act = told.act`,
      [[...acts.keys()], [...acts.values()]],
    );
    for (const table of dated) {
      await client.query(`alter table ${table} disable trigger user`);
      await client.query(
        `update ${table} set created_at = history.at from history
         where history.subject = $1 and history.row_id = ${table}.id and history.before is null`,
        [table],
      );
    }
    for (const [table, column] of moments) {
      await client.query(
        `update history set after = jsonb_set(after, $2, to_jsonb(at)) where subject = $1 and after ->> $3 is not null`,
        [table, [column], column],
      );
      await client.query(
        `update ${table} set ${column} = history.at from history
         where history.subject = $1 and history.row_id = ${table}.id and history.after ->> $2 is not null`,
        [table, column],
      );
    }
    for (const table of dated) await client.query(`alter table ${table} enable trigger user`);
    await client.query('commit');
  } finally {
    await client.end();
  }
}
