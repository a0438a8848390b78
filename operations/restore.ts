import { basename } from 'node:path';
import pg from 'pg';
import { Failure } from '../launch/failure.ts';
import { newerSchema, schemaState } from '../store/database/schema-state.ts';
import { programVersion } from './backup.ts';
import { checkedNote } from './backup-file.ts';
import { differences, manifestOf } from './manifest.ts';
import { postgresTool } from './postgres-tool.ts';
import { connected } from '../store/database/database.ts';
import { carryOver, renewIdentity } from './carry-over.ts';
import { beside, databaseName, type ReachedDatabase } from './reached-database.ts';

const named = (name: string) => pg.escapeIdentifier(name);

/** Makes a database of a backup, and holds it against what the backup must give back. @throws Failure, and leaves none behind */
async function databaseOf(file: string, { url, programs }: ReachedDatabase, name: string): Promise<void> {
  const note = await checkedNote(file);
  const admin = beside(url, 'postgres');
  await connected(admin, (client) => client.query(`create database ${named(name)} encoding 'UTF8' template template0`));
  try {
    await postgresTool(programs, 'pg_restore', beside(url, name), [
      '--exit-on-error',
      '--no-owner',
      '--no-acl',
      `--dbname=${name}`,
      file,
    ]);
    await connected(beside(url, name), async (client) => {
      const newer = newerSchema(await schemaState(client));
      if (newer) throw new Failure(newer);
      const found = differences(note.holds, await manifestOf(client), note.version === programVersion);
      if (found.length > 0)
        throw new Failure(`${basename(file)} does not give back what went in: ${found.join('; ')}.`);
    });
  } catch (error) {
    await connected(admin, (client) => client.query(`drop database if exists ${named(name)} with (force)`));
    throw error;
  }
}

/** A moment as part of a database's name. */
const momentIn = (now: Date) => now.toISOString().slice(0, 19).replaceAll(/[-:T]/g, '');

/** Restores a backup into a scratch database, compares, and removes it again. @throws Failure that says what is wrong */
export async function verifyBackup(file: string, database: ReachedDatabase, now = new Date()): Promise<void> {
  const scratch = `suvok_verify_${momentIn(now)}`;
  await databaseOf(file, database, scratch);
  await connected(beside(database.url, 'postgres'), (client) =>
    client.query(`drop database ${named(scratch)} with (force)`),
  );
}

/** What came of a restore. */
export interface Restored {
  /** What was there before is kept in this database. */
  before: string;
  /** What could not be carried over from it, as a sentence. */
  notCarried: string | null;
}

/**
 * Puts a backup in the place of the database, as another one than it was made of. What was there before is kept under
 * another name; numbers that it gave out are not given out again, and links that were taken back there stay taken back.
 * @throws Failure while anybody uses the database, or when the backup is not whole; nothing is changed then
 */
export async function restoreBackup(file: string, database: ReachedDatabase, now = new Date()): Promise<Restored> {
  if (database.running) throw new Failure('Suvok runs on this data. Stop it, then restore.');
  const name = databaseName(database.url);
  const admin = beside(database.url, 'postgres');
  const users = await connected(admin, (client) =>
    client.query('select 1 from pg_stat_activity where datname = $1', [name]),
  );
  if (users.rowCount !== 0)
    throw new Failure(`Somebody is connected to the database ${name}. Stop every Suvok on it, then restore.`);
  const restored = `suvok_restored_${momentIn(now)}`;
  await databaseOf(file, database, restored);
  await connected(beside(database.url, restored), renewIdentity);
  const notCarried = await carryOver(database.url, beside(database.url, restored)).then(
    () => null,
    (error: Error) =>
      `The data that were here could not be read (${error.message}): numbers of jobs and runs may be given out again, and links that were taken back since the backup hold again. Look at the shared links of each job.`,
  );
  const before = `suvok_before_${momentIn(now)}`;
  await connected(admin, async (client) => {
    await client.query(`alter database ${named(name)} rename to ${named(before)}`);
    await client.query(`alter database ${named(restored)} rename to ${named(name)}`);
  });
  return { before, notCarried };
}
