import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { readdir, readFile, rm } from 'node:fs/promises';
import { basename, join } from 'node:path';
import { z } from 'zod';
import { Failure } from '../launch/failure.ts';
import { manifest } from './manifest.ts';
import { jsonIn } from '../contract/values/text.ts';

/** What stands beside a backup, so that it can be told whether it gives back what went in. */
export const backupNote = z.object({
  madeAt: z.iso.datetime(),
  /** Why it was made: one of the daily ones, before a change of the schema, or asked for. */
  kind: z.enum(['daily', 'upgrade', 'asked']),
  /** Suvok's version. */
  version: z.string(),
  bytes: z.int().positive(),
  sha256: z.string(),
  holds: manifest,
});
export type BackupNote = z.infer<typeof backupNote>;

export const suffix = '.backup';
export const noteOf = (file: string): string => `${file}.json`;

export async function hashOf(file: string): Promise<string> {
  const hash = createHash('sha256');
  for await (const part of createReadStream(file)) hash.update(part as Buffer);
  return hash.digest('hex');
}

/** Reads what stands beside a backup, and looks whether the file is the one that was made. @throws Failure */
export async function checkedNote(file: string): Promise<BackupNote> {
  const name = basename(file);
  const text = await readFile(noteOf(file), 'utf8').catch(() => undefined);
  if (text === undefined) throw new Failure(`${name} cannot be checked: ${basename(noteOf(file))} is not beside it.`);
  const note = backupNote.safeParse(jsonIn(text));
  if (!note.success) throw new Failure(`${basename(noteOf(file))} cannot be read: it is not what a backup writes.`);
  const sum = await hashOf(file).catch(() => undefined);
  if (sum === undefined) throw new Failure(`There is no file ${file}.`);
  if (sum !== note.data.sha256)
    throw new Failure(`${name} is damaged: it is not the file that was made. Take another one.`);
  return note.data;
}

export interface KeptBackup {
  file: string;
  note: BackupNote;
}

/** The backups of a folder, the oldest first; what is none is left alone. */
export async function backupsIn(folder: string): Promise<KeptBackup[]> {
  const names = await readdir(folder).catch(() => []);
  const found: KeptBackup[] = [];
  for (const name of names.filter((name) => name.endsWith(suffix))) {
    const file = join(folder, name);
    const note = backupNote.safeParse(jsonIn(await readFile(noteOf(file), 'utf8').catch(() => '')));
    if (note.success) found.push({ file, note: note.data });
  }
  return found.sort((a, b) => a.note.madeAt.localeCompare(b.note.madeAt));
}

export async function removeBackup(file: string): Promise<void> {
  await rm(file, { force: true });
  await rm(noteOf(file), { force: true });
}
