import type { Database } from '../database/database.ts';
import { runById } from './runs.ts';
import { sealRun } from './samples.ts';

/**
 * Ends runs that a recorder left open and of which nobody has the rest, as
 * interrupted, with all that was stored; those of versions before recorders had names are among them.
 * @param kept keys of the runs whose rest the recorder has
 */
export async function sealLeftOpen(database: Database, recorder: string, kept: readonly string[]): Promise<void> {
  const { rows } = await database.query<{ id: number }>(
    `select id from run where state = 'recording' and (recorder is null or recorder = $1)
     and (key is null or key <> all($2::uuid[]))`,
    [recorder, kept],
  );
  for (const { id } of rows) {
    const run = await runById(database, id);
    const remark = 'The recorder stopped during this run. Everything stored until then was kept.';
    if (run) await sealRun(database, run, 'interrupted', [remark]);
  }
}
