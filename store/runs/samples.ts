import { sourceKey, type SampleSource } from '../../core/exchange/recordings/recording-bytes.ts';
import type { Recording } from '../../core/recording/recording.ts';
import type { Run } from '../../contract/job/records.ts';
import { inTransaction, type Database, type Queryable } from '../database/database.ts';
import { mustHold, type RecorderPlace } from '../database/recorder-place.ts';

/** Columns of samples, all of one length: time first, then each channel of a source in its order. */
export type Columns = Float64Array[];

/** The dyno's own samples; loggers beside it are 1, 2 … */
export const dynoSource = 0;

function bytesOf(values: Float64Array): Buffer {
  return Buffer.from(values.buffer, values.byteOffset, values.byteLength);
}

/** A copy on its own, aligned memory: PostgreSQL's buffers are slices of larger ones. */
function floatsOf(bytes: Buffer): Float64Array {
  return new Float64Array(Uint8Array.from(bytes).buffer);
}

/** The channels that a source of a run has. Empty for a source that the run does not have. */
function channelsOf(run: Run, source: number): Run['channels'] {
  return source === dynoSource ? run.channels : (run.logs.find((log) => log.source === source)?.channels ?? []);
}

function sourcesOf(run: Run): number[] {
  return [dynoSource, ...run.logs.map((log) => log.source)];
}

/**
 * Stores rows of a run being recorded, in their order; rows already stored, and a run that has ended, are left as they are.
 * @param from rows of the source before them
 * @returns whether anything was stored
 */
export async function appendChunk(
  database: Queryable,
  { recorder, term, database: identity }: RecorderPlace,
  runId: number,
  source: number,
  from: number,
  columns: Columns,
): Promise<boolean> {
  const data = Buffer.concat(columns.map(bytesOf));
  const { rowCount } = await database.query(
    `insert into run_chunk (run_id, source, sequence, samples, data)
     select $1::bigint, $2::int, $3::int, $4::int, $5::bytea
     from (select from recorder where id = $6 and term = $7 for share) as place
     where exists (select from run where id = $1 and state = 'recording')
       and exists (select from database_identity where id = $8)
     on conflict do nothing`,
    [runId, source, from, columns[0]!.length, data, recorder, term, identity],
  );
  return rowCount === 1;
}

/** Rows of a source that are stored: the one that comes next, and how many there are; fewer where some are missing. */
export interface RowsKept {
  next: number;
  rows: number;
}

/** What is stored of each source of a run being recorded. */
export async function rowsKept(database: Queryable, runId: number): Promise<Map<number, RowsKept>> {
  const { rows } = await database.query<RowsKept & { source: number }>(
    `select source, max(sequence + samples) as next, sum(samples)::int as rows from run_chunk
     where run_id = $1 group by source`,
    [runId],
  );
  return new Map(rows.map(({ source, ...kept }) => [source, kept]));
}

async function chunksOf(database: Queryable, run: Run, source: number): Promise<Columns> {
  const { rows } = await database.query<{ samples: number; data: Buffer }>(
    'select samples, data from run_chunk where run_id = $1 and source = $2 order by sequence',
    [run.id, source],
  );
  const total = rows.reduce((sum, row) => sum + row.samples, 0);
  const columns = Array.from({ length: channelsOf(run, source).length + 1 }, () => new Float64Array(total));
  let at = 0;
  for (const { samples, data } of rows) {
    const values = floatsOf(data);
    columns.forEach((column, index) => column.set(values.subarray(index * samples, (index + 1) * samples), at));
    at += samples;
  }
  return columns;
}

/** Writes the samples of one source of a run, which are never changed after. */
export async function insertChannels(database: Queryable, run: Run, source: number, columns: Columns): Promise<void> {
  const declared = [{ name: 'time', unit: 's' }, ...channelsOf(run, source)];
  // One by one: a single column goes out as its bytes, a list of them as text of twice the length, all at once.
  for (const [position, { name, unit }] of declared.entries())
    await database.query(
      'insert into run_channel (run_id, source, position, name, unit, data) values ($1, $2, $3, $4, $5, $6)',
      [run.id, source, position, name, unit, bytesOf(columns[position]!)],
    );
}

function endOf(run: Run, time: Float64Array): Date {
  const lastedS = time.length > 0 ? time[time.length - 1]! - time[0]! : 0;
  return new Date(new Date(run.startedAt).getTime() + 1000 * lastedS);
}

/**
 * Ends a recording: gathers its chunks into one column a source and channel
 * and marks the run, all in one transaction. Does nothing to a run that has ended.
 * @throws PlaceLost when another recorder has taken the place
 */
export async function sealRun(
  database: Database,
  run: Run,
  as: 'sealed' | 'interrupted',
  remarks: readonly string[],
  place?: RecorderPlace,
): Promise<void> {
  await inTransaction(database, async (client) => {
    if (place) await mustHold(client, place);
    const { rows } = await client.query('select state from run where id = $1 for update', [run.id]);
    if (rows[0]?.state !== 'recording') return;
    let time: Float64Array = new Float64Array(0);
    for (const source of sourcesOf(run)) {
      const columns = await chunksOf(client, run, source);
      if (source === dynoSource) time = columns[0]!;
      await insertChannels(client, run, source, columns);
    }
    await client.query(
      'update run set state = $2, ended_at = $3, samples = $4, remarks = remarks || $5::jsonb where id = $1',
      [run.id, as, endOf(run, time), time.length, JSON.stringify(remarks)],
    );
    await client.query('delete from run_chunk where run_id = $1', [run.id]);
  });
}

/** Stores a recording that arrived whole, as from a file, and marks its run sealed. */
export async function storeWhole(
  database: Queryable,
  run: Run,
  recording: Recording,
  remarks: readonly string[],
): Promise<void> {
  const columns = [recording.time, ...recording.channels.map((channel) => channel.values)];
  await insertChannels(database, run, dynoSource, columns);
  await database.query(`update run set state = 'sealed', ended_at = $2, samples = $3, remarks = $4 where id = $1`, [
    run.id,
    endOf(run, recording.time),
    recording.time.length,
    JSON.stringify(remarks),
  ]);
}

/** The samples of a run's source: of one that has ended, or what has been stored so far of one that has not. */
export async function recordingOf(database: Queryable, run: Run, source = dynoSource): Promise<Recording> {
  if (run.state === 'recording') {
    const [time = new Float64Array(0), ...values] = await chunksOf(database, run, source);
    const channels = channelsOf(run, source);
    return { time, channels: channels.map((channel, index) => ({ ...channel, values: values[index]! })) };
  }
  const { rows } = await database.query<{ name: string; unit: string; data: Buffer }>(
    'select name, unit, data from run_channel where run_id = $1 and source = $2 order by position',
    [run.id, source],
  );
  const [time, ...channels] = rows.map(({ name, unit, data }) => ({ name, unit, values: floatsOf(data) }));
  return { time: time?.values ?? new Float64Array(0), channels };
}

/**
 * Samples of runs that have ended, by `sourceKey`, in one query; what is not there or not ended is left out.
 * @param asked with `logKey`, only where the log's own key begins so
 */
export async function recordingsOf(
  database: Queryable,
  asked: readonly (SampleSource & { logKey?: string | undefined })[],
): Promise<Map<string, Recording>> {
  const { rows } = await database.query<{ run: string; source: number; name: string; unit: string; data: Buffer }>(
    `select asked.run, asked.source, run_channel.name, unit, data
     from unnest($1::uuid[], $2::int[], $3::text[]) as asked (run, source, log_key)
     join run on run.key = asked.run join run_channel on run_id = run.id and run_channel.source = asked.source
     where state <> 'recording' and (log_key is null or exists (
       select from jsonb_to_recordset(run.logs) as log (source int, key text)
       where log.source = asked.source and left(log.key, 8) = log_key))
     order by run.id, asked.source, position`,
    [asked.map(({ run }) => run), asked.map(({ source }) => source), asked.map(({ logKey }) => logKey ?? null)],
  );
  const recordings = new Map<string, Recording>();
  for (const { run, source, name, unit, data } of rows) {
    const key = sourceKey({ run, source });
    const values = floatsOf(data);
    const recording = recordings.get(key);
    // Time comes first.
    if (recording) recording.channels.push({ name, unit, values });
    else recordings.set(key, { time: values, channels: [] });
  }
  return recordings;
}
