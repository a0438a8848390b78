import { readFileSync } from 'node:fs';
import { open, rename, rm, stat, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { z } from 'zod';
import { makeFolders } from '../launch/folders.ts';
import { backupsIn, hashOf, noteOf, removeBackup, suffix, type BackupNote, type KeptBackup } from './backup-file.ts';
import { manifestOf } from './manifest.ts';
import { postgresTool } from './postgres-tool.ts';
import { connected } from '../store/database/database.ts';
import { superfluous } from './retention.ts';

const packageFile = z.object({ version: z.string() });
export const programVersion = packageFile.parse(
  JSON.parse(readFileSync(new URL('../package.json', import.meta.url), 'utf8')),
).version;

/**
 * Makes a backup of one moment of a database: the file, and beside it what it
 * must give back. The file gets its name once it is whole and on the disk.
 * @param folder made when it is missing
 */
export async function makeBackup(
  { url, programs }: { url: string; programs: string },
  folder: string,
  kind: BackupNote['kind'],
  now = new Date(),
): Promise<KeptBackup> {
  makeFolders(folder, 0o700);
  const file = join(folder, `suvok-${now.toISOString().slice(0, 19).replaceAll(':', '')}Z-${kind}${suffix}`);
  const part = `${file}.part`;
  // Made before it is written, so that nobody else may read it.
  await writeFile(part, '', { mode: 0o600 });
  const holds = await connected(url, async (client) => {
    // One moment for both: what is counted is what is dumped.
    await client.query('begin isolation level repeatable read read only');
    const { rows } = await client.query<{ snapshot: string }>('select pg_export_snapshot() as snapshot');
    const dumped = postgresTool(programs, 'pg_dump', url, [
      '--format=custom',
      '--no-owner',
      '--no-acl',
      '--exclude-table-data=session',
      `--snapshot=${rows[0]?.snapshot ?? ''}`,
      `--file=${part}`,
    ]);
    const [holds] = await Promise.all([manifestOf(client), dumped]);
    return holds;
  }).catch(async (error: Error) => {
    await rm(part, { force: true });
    throw error;
  });
  const handle = await open(part, 'r+');
  await handle.sync();
  await handle.close();
  const { size } = await stat(part);
  const note: BackupNote = {
    madeAt: now.toISOString(),
    kind,
    version: programVersion,
    bytes: size,
    sha256: await hashOf(part),
    holds,
  };
  await writeFile(noteOf(file), `${JSON.stringify(note, null, 2)}\n`, { mode: 0o600 });
  await rename(part, file);
  return { file, note };
}

/** Removes daily backups that the newer ones have made superfluous; those that somebody asked for stay. @returns how many went */
export async function thinOut(folder: string): Promise<number> {
  const daily = (await backupsIn(folder)).filter(({ note }) => note.kind === 'daily');
  const goes = new Set(
    superfluous(daily.map(({ note }) => new Date(note.madeAt))).map((moment) => moment.toISOString()),
  );
  const gone = daily.filter(({ note }) => goes.has(new Date(note.madeAt).toISOString()));
  for (const { file } of gone) await removeBackup(file);
  return gone.length;
}
