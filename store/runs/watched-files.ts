import { z } from 'zod';
import { watchedFile, type WatchedFile } from '../../contract/shop/watched-folder.ts';
import type { Database, Queryable } from '../database/database.ts';
import { recordOf } from '../database/rows.ts';
import { runById } from './runs.ts';

export async function watchedPath(database: Queryable): Promise<string | null> {
  const { rows } = await database.query<{ path: string }>('select path from watched_folder');
  return rows[0]?.path ?? null;
}

export async function watchPath(database: Queryable, path: string | null): Promise<void> {
  if (path === null) await database.query('delete from watched_folder');
  else
    await database.query(
      `insert into watched_folder (path) values ($1) on conflict (sole) do update set path = $1, chosen_at = now()`,
      [path],
    );
}

const fields = 'id, name, bytes::float8 as bytes, modified_at, taken_at, outcome, words, run_ids';

/** As it is stored; its runs by their numbers. */
const storedFile = watchedFile.omit({ runs: true }).extend({ runIds: z.array(z.number()) });

/** What was dropped into the folder, the latest first. */
export async function watchedFiles(database: Database, most = 50): Promise<WatchedFile[]> {
  const { rows } = await database.query(`select ${fields} from watched_file order by taken_at desc, id desc limit $1`, [
    most,
  ]);
  const files = rows.map((row) => recordOf(storedFile, row));
  const ids = [...new Set(files.flatMap(({ runIds }) => runIds))];
  const runs = new Map(await Promise.all(ids.map(async (id) => [id, await runById(database, id)] as const)));
  return files.map(({ runIds, ...file }) => ({
    ...file,
    runs: runIds.flatMap((id) => {
      const run = runs.get(id);
      return run && run.jobId !== null && run.label !== null ? [{ jobId: run.jobId, label: run.label }] : [];
    }),
  }));
}

export interface DroppedFile {
  sha256: string;
  name: string;
  bytes: number;
  modifiedAt: Date;
}

/**
 * Takes a file in hand, whoever sees it first.
 * @returns undefined where one with the same content was taken before
 */
export async function claimFile(database: Queryable, file: DroppedFile): Promise<number | undefined> {
  const { rows } = await database.query<{ id: number }>(
    `insert into watched_file (sha256, name, bytes, modified_at, outcome) values ($1, $2, $3, $4, 'reading')
     on conflict (sha256) do nothing returning id`,
    [file.sha256, file.name, file.bytes, file.modifiedAt],
  );
  return rows[0]?.id;
}

/** Writes down what became of a file. */
export async function settleFile(
  database: Queryable,
  id: number,
  outcome: 'run' | 'log' | 'refused',
  runIds: readonly number[],
  words: string,
): Promise<void> {
  await database.query('update watched_file set outcome = $2, run_ids = $3, words = $4 where id = $1', [
    id,
    outcome,
    JSON.stringify(runIds),
    words,
  ]);
}

/** Lets a file be taken again: one that was refused, or whose reading was cut short. @returns its name */
export async function forgetFile(database: Queryable, id: number): Promise<string | undefined> {
  const { rows } = await database.query<{ name: string }>(
    `delete from watched_file where id = $1 and outcome in ('refused', 'reading') returning name`,
    [id],
  );
  return rows[0]?.name;
}

/** Files whose reading was cut short by an end of the server: they are taken again. */
export async function forgetUnfinished(database: Queryable): Promise<void> {
  await database.query(`delete from watched_file where outcome = 'reading'`);
}
