import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import pg from 'pg';
import { newerSchema, schemaState } from '../store/database/schema-state.ts';
import { Failure } from './failure.ts';
import { startProgram, stopProgram } from './program.ts';

/** When it is first looked whether a daily backup is due, and how often from then on, ms: a start has other things to do. */
const firstLookMs = 10 * 60_000;
const everyMs = 60 * 60_000;
const dayMs = 24 * 60 * 60_000;

/** Has a backup made beside the running database. @param signal ends it early @throws Failure with its sentence */
async function makeBackup(kind: 'daily' | 'upgrade', signal: AbortSignal): Promise<void> {
  if (signal.aborted) return;
  const child = startProgram('operations/main.ts', ['backup', '--kind', kind], {});
  signal.addEventListener('abort', () => void stopProgram(child), { once: true });
  let said = '';
  child.stderr?.on('data', (text: Buffer) => (said = (said + text.toString()).slice(-4000)));
  const code = await new Promise<number | null>((resolve) => child.once('close', resolve));
  if (code !== 0) throw new Failure(/suvok: (.*)/.exec(said)?.[1] ?? 'the backup gave no reason');
}

/**
 * Looks how the database stands to this program, and has a backup made before its schema is changed.
 * @param signal ends the backup early
 * @throws Failure where a newer program has written it, or the backup cannot be made: nothing is changed then
 */
export async function backupBeforeUpgrade(
  databaseUrl: string,
  say: (text: string) => void,
  signal: AbortSignal,
): Promise<void> {
  const client = new pg.Client({ connectionString: databaseUrl });
  const state = await client
    .connect()
    .then(() => schemaState(client))
    .catch((error: Error) => {
      throw new Failure(`The database does not answer (${error.message}).`);
    })
    .finally(() => void client.end().catch(() => undefined));
  const newer = newerSchema(state);
  if (newer) throw new Failure(newer);
  if (state.latest === null || state.pending.length === 0) return;
  say('Making a backup before the data are brought up to this version');
  await makeBackup('upgrade', signal).catch((error: Error) => {
    throw new Failure(
      `No backup could be made before the data are changed, so nothing was changed: ${error.message} (SUVOK_BACKUPS=off goes on without.)`,
    );
  });
}

/** When the newest daily backup of a folder was made; their names say it. */
export function newestDaily(names: readonly string[]): Date | undefined {
  const moments = names.flatMap((name) => {
    const [, day, hours, minutes, seconds] =
      /^suvok-(\d{4}-\d\d-\d\d)T(\d\d)(\d\d)(\d\d)Z-daily\.backup$/.exec(name) ?? [];
    return day ? [new Date(`${day}T${hours}:${minutes}:${seconds}Z`)] : [];
  });
  return moments.sort((a, b) => a.getTime() - b.getTime()).at(-1);
}

/**
 * Has a backup made once a day while Suvok runs. One that fails is told of and tried an hour later.
 * @returns ends it
 */
export function keepBackups(dataFolder: string, tell: (sentence: string) => void): () => Promise<void> {
  const stopping = new AbortController();
  let making: Promise<void> = Promise.resolve();
  const folder = join(dataFolder, 'backups');
  const look = async () => {
    const names = readNames(folder);
    const newest = newestDaily(names)?.getTime() ?? 0;
    if (Date.now() - newest < dayMs - everyMs / 2) return;
    await makeBackup('daily', stopping.signal).catch((error: Error) => {
      if (!stopping.signal.aborted) tell(`The daily backup could not be made: ${error.message}`);
    });
  };
  let timer = setTimeout(function again() {
    making = look();
    timer = setTimeout(again, everyMs);
    timer.unref();
  }, firstLookMs);
  timer.unref();
  return async () => {
    clearTimeout(timer);
    stopping.abort();
    await making;
  };
}

function readNames(folder: string): string[] {
  try {
    return readdirSync(folder);
  } catch {
    return [];
  }
}
