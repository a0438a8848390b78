import { randomUUID } from 'node:crypto';
import { logSource, type LogSource } from '../../contract/instruments/logger-file.ts';
import type { Run } from '../../contract/job/records.ts';
import type { RunLogRecord } from '../../contract/instruments/recording.ts';
import type { Recording } from '../../core/recording/recording.ts';
import type { Queryable } from '../database/database.ts';
import { recordOf } from '../database/rows.ts';
import { insertChannels } from './samples.ts';

/** The loggers whose files were read before, the last one first. */
export async function logSources(database: Queryable): Promise<LogSource[]> {
  const { rows } = await database.query('select * from log_source order by used_at desc limit 200');
  return rows.map((row) => recordOf(logSource, row));
}

/** Remembers how a logger's files are read; one that was known is read so from now on. */
export async function keepLogSource(database: Queryable, { headings, name, mapping, probe }: LogSource): Promise<void> {
  await database.query(
    `insert into log_source (headings, name, mapping, probe) values ($1, $2, $3, $4)
     on conflict (headings) do update set name = $2, mapping = $3, probe = $4, used_at = now()`,
    [headings, name, JSON.stringify(mapping), JSON.stringify(probe)],
  );
}

/** Adds a logger's recording to a run that has ended: beside what there is, which stays. @returns its number */
export async function joinLog(
  database: Queryable,
  run: Run,
  log: Pick<RunLogRecord, 'name' | 'probe'>,
  recording: Recording,
): Promise<number> {
  // Samples of one that was taken off stay: a number is given out once.
  const { rows } = await database.query<{ last: number }>(
    'select coalesce(max(source), 0) as last from run_channel where run_id = $1',
    [run.id],
  );
  const source = Math.max(rows[0]?.last ?? 0, ...run.logs.map((one) => one.source)) + 1;
  const channels = recording.channels.map(({ name, unit }) => ({ name, unit }));
  const logs = [...run.logs, { source, device: '', ...log, channels, key: randomUUID() }];
  await database.query('update run set logs = $2 where id = $1', [run.id, JSON.stringify(logs)]);
  await insertChannels(database, { ...run, logs }, source, [
    recording.time,
    ...recording.channels.map(({ values }) => values),
  ]);
  return source;
}

/** Takes a logger's recording off a run; its samples are kept, so that it can be undone. @returns false where there is none */
export async function takeLogOff(database: Queryable, run: Run, source: number): Promise<boolean> {
  const logs = run.logs.filter((one) => one.source !== source);
  if (logs.length === run.logs.length) return false;
  await database.query('update run set logs = $2 where id = $1', [run.id, JSON.stringify(logs)]);
  return true;
}
