import type pg from 'pg';
import type { Run } from '../../contract/records.ts';
import { withClient, type Database } from './database.ts';
import { runById } from './runs.ts';
import { sealRun } from './samples.ts';

/** First key of the advisory locks that say which recorders are alive. */
const lockSpace = 731_000;

/**
 * Tells other processes that this recorder lives: an advisory lock on a
 * connection of its own, which PostgreSQL lets go of when the process dies.
 */
export async function holdRecorderLock(database: Database, recorderId: number): Promise<pg.PoolClient> {
  const client = await database.connect();
  await client.query('select pg_advisory_lock($1, $2)', [lockSpace, recorderId]);
  return client;
}

/**
 * Seals the runs that a recorder left open when it died, with everything it
 * had stored, and marks them interrupted.
 * @returns the runs
 */
export async function sealOrphans(database: Database): Promise<Run[]> {
  const { rows } = await database.query<{ id: number; recorder_id: number | null }>(
    `select id, recorder_id from run where state = 'recording'`,
  );
  const sealed: Run[] = [];
  for (const { id, recorder_id } of rows) {
    if (recorder_id !== null && (await isAlive(database, recorder_id))) continue;
    const run = await runById(database, id);
    if (!run) continue;
    await sealRun(database, run, 'interrupted', [
      'The server stopped during this run. Everything stored until then was kept.',
    ]);
    sealed.push(run);
  }
  return sealed;
}

async function isAlive(database: Database, recorderId: number): Promise<boolean> {
  return withClient(database, async (client) => {
    const { rows } = await client.query('select pg_try_advisory_lock($1, $2) as free', [lockSpace, recorderId]);
    if (!rows[0].free) return true;
    await client.query('select pg_advisory_unlock($1, $2)', [lockSpace, recorderId]);
    return false;
  });
}
