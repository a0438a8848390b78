import { open, readFile, stat } from 'node:fs/promises';
import { basename } from 'node:path';
import { decodedText, readLogTable } from '../../core/exchange/loggers/log-table.ts';
import { headingsKey, recordingBy } from '../../core/exchange/loggers/log-mapping.ts';
import { readingOf } from '../../core/figures/runs/reading.ts';
import { partOfLog, runsInLog, soughtRun, type SoughtRun } from '../../core/log/logger-file/pulls-in-log.ts';
import { knownChannelNamed, speedChannels } from '../../core/recording/channels.ts';
import { valuesOf } from '../../core/recording/recording.ts';
import { Refusal } from '../../core/refusal.ts';
import { listed } from '../../core/units/spoken.ts';
import type { Job, Run } from '../../contract/job/records.ts';
import { inTransaction, type Database } from '../../store/database/database.ts';
import { joinLog, logSources } from '../../store/runs/logger-files.ts';
import { jobWithAll } from '../../store/jobs/jobs.ts';
import { recordingOf } from '../../store/runs/samples.ts';
import type { ImportReader } from '../import/import-reader.ts';
import { storeImport } from '../import/store-import.ts';
import type { RecorderClient } from '../recorder-client.ts';

/** What a dropped file became. */
export interface Taken {
  outcome: 'run' | 'log';
  runIds: number[];
  words: string;
}

export interface TakeParts {
  database: Database;
  recorder: RecorderClient;
  reader: ImportReader;
}

/** So much of a file tells what it is, bytes. */
const headBytes = 256_000;
/** A larger file is no logger's. */
const mostLoggerBytes = 100_000_000;
/** The latest runs that a logger's file is sought for. */
const mostSought = 40;

/**
 * Takes a complete file into the job that is mounted: a dyno's recording as a
 * run of the setup on the dyno, a logger's file into the runs that it holds.
 * The file itself stays as it is.
 * @throws Refusal with what is missing, or wrong with it
 */
export async function takeFile(path: string, parts: TakeParts): Promise<Taken> {
  const mounted = parts.recorder.state().bays.find((bay) => bay.mounted)?.mounted;
  if (!mounted) throw new Refusal('No car is on a dyno: put its job on, then try again.');
  const job = await jobWithAll(parts.database, mounted.jobId);
  if (!job) throw new Refusal('The job on the dyno is no longer there.');
  return (await isOfDyno(path)) ? recordingTaken(path, job, mounted.setupId, parts) : loggerTaken(path, job, parts);
}

/** A dyno's recording has a drum's speed among its headings; a logger's has none. */
async function isOfDyno(path: string): Promise<boolean> {
  const file = await open(path);
  try {
    const { bytesRead, buffer } = await file.read(Buffer.alloc(headBytes), 0, headBytes, 0);
    const { columns } = readLogTable(decodedText(buffer.subarray(0, bytesRead)), 2);
    return columns.some(({ heading }) => {
      const channel = knownChannelNamed(heading);
      return channel !== undefined && speedChannels.includes(channel);
    });
  } finally {
    await file.close();
  }
}

async function recordingTaken(path: string, job: Job, setupId: number, parts: TakeParts): Promise<Taken> {
  // The machine is that of the job's latest run: a file does not say what it was recorded on.
  const like = job.runs.at(-1);
  if (!like)
    throw new Refusal('No run of this job tells which dyno it is from: record or import one by hand, then try again.');
  const { mtime } = await stat(path);
  const { run, remarks } = await storeImport(
    { path, name: basename(path) },
    {
      setupId,
      dyno: like.dyno,
      air: null,
      engineToDrumRatio: like.engineToDrumRatio,
      startedAt: mtime.toISOString(),
      gear: like.gear,
    },
    { tell: () => undefined, signal: new AbortController().signal },
    parts,
  );
  return {
    outcome: 'run',
    runIds: [run.id],
    words: [`Dyno, gear and ratio as of ${like.label ?? 'the latest run'}.`, ...remarks].join(' '),
  };
}

async function loggerTaken(path: string, job: Job, { database }: TakeParts): Promise<Taken> {
  const { size } = await stat(path);
  if (size > mostLoggerBytes)
    throw new Refusal('No speed of a drum is among its columns, and it is too large for a logger’s file.');
  const table = readLogTable(decodedText(new Uint8Array(await readFile(path))));
  const key = headingsKey(table.columns);
  const source = (await logSources(database)).find(({ headings }) => headings === key);
  if (!source)
    throw new Refusal(
      'Its columns are not known yet: add it once by hand on Logs, then files like it are taken by themselves.',
    );
  const log = recordingBy(source.mapping, table);
  const rpm = valuesOf(log, 'engineSpeed');
  if (!rpm) throw new Refusal('It records no engine speed: it cannot be time-aligned.');
  const runs = job.runs.filter(({ state, kind }) => state !== 'recording' && kind === 'power').slice(-mostSought);
  const sought = await soughtIn(database, runs);
  const found = runsInLog(sought, { time: log.time, rpm });
  const joined: Run[] = [];
  const name = `${source.name}, ${basename(path)}`.slice(0, 120);
  await inTransaction(database, async (client) => {
    for (const one of found) {
      const run = runs.find(({ id }) => id === one.id);
      if (!one.fit || !run) continue;
      await joinLog(client, run, { name, probe: source.probe }, partOfLog(log, one.fromS, one.toS));
      joined.push(run);
    }
  });
  if (joined.length === 0) throw new Refusal(found[0]?.refused ?? 'This job has no run that it could belong to.');
  return {
    outcome: 'log',
    runIds: joined.map(({ id }) => id),
    words: `Joined ${listed(joined.map(({ label }) => label ?? 'a run'))}.`,
  };
}

async function soughtIn(database: Database, runs: readonly Run[]): Promise<SoughtRun[]> {
  const found: SoughtRun[] = [];
  for (const run of runs) {
    const reading = readingOf(run, await recordingOf(database, run));
    if (reading.kind !== 'sweep') continue;
    found.push(soughtRun(run, reading.sweep));
    // A run may be recorded meanwhile: pages are answered between one and the next.
    await new Promise((resolve) => setImmediate(resolve));
  }
  return found;
}
