import { createHash } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { setImmediate } from 'node:timers/promises';
import yazl from 'yazl';
import {
  bundleFormat,
  bundlePaths,
  bundleVersion,
  type BundledJob,
  type BundleManifest,
  type BundleWishes,
} from '../../contract/bundle.ts';
import { checkHistory, type CheckHistoryRecord } from '../../contract/check-history.ts';
import type { Job, Run } from '../../contract/records.ts';
import { recordingCsvPieces } from '../../core/exchange/write-csv.ts';
import { bundledJobOf, keysOfJob } from '../../store/bundled-job.ts';
import type { Database } from '../../store/database.ts';
import { photoContent, tuneFileContent } from '../../store/files.ts';
import { recordingByChannels } from '../../store/samples.ts';
import type { DynoHistory } from '../dyno-history.ts';

/** One file of a bundle: its bytes are made when its turn comes, so that no more than one recording is in memory. */
interface Part {
  path: string;
  pieces: () => AsyncIterable<Buffer> | Iterable<Buffer>;
  /** What is compressed already is stored as it is. */
  compress: boolean;
}

/**
 * Writes a job as one file that another Suvok takes in.
 * @param file where it goes
 * @param told how much of it is written, from 0 to 1
 */
export async function writeBundle(
  { database, dynos }: { database: Database; dynos: DynoHistory },
  job: Job,
  wishes: BundleWishes,
  file: string,
  told: (done: number) => void,
  signal: AbortSignal,
): Promise<void> {
  const keys = await keysOfJob(database, job.id);
  const bundled = await bundledJobOf(database, job, keys, await learnedOf(job, dynos), wishes);
  const files: BundleManifest['files'] = [];
  const parts = [
    jsonPart(bundlePaths.job, () => bundled),
    ...bundled.job.runs.flatMap((run) => recordingParts(database, run)),
    ...fileParts(database, bundled),
  ];
  const zip = new yazl.ZipFile();
  const failed = new AbortController();
  zip.once('error', (error) => failed.abort(error));
  for (const [index, part] of parts.entries()) {
    add(zip, part, (bytes, sha256) => {
      files.push({ path: part.path, bytes, sha256 });
      told((index + 1) / parts.length);
    });
  }
  // The last, for it tells of all the others.
  const { version } = JSON.parse(await readFile(new URL('../../package.json', import.meta.url), 'utf8')) as { version: string }; // prettier-ignore
  const manifest = (): BundleManifest => ({
    format: bundleFormat,
    version: bundleVersion,
    madeAt: new Date().toISOString(),
    madeBy: version,
    job: keys.job,
    vehicle: job.vehicle,
    question: job.question,
    ownerLeftOut: !wishes.withOwner,
    runsLeftOut: job.runs.length - bundled.job.runs.length,
    files,
  });
  add(zip, jsonPart(bundlePaths.manifest, manifest), () => undefined);
  zip.end();
  const stop = AbortSignal.any([signal, failed.signal]);
  await pipeline(zip.outputStream, createWriteStream(file, { mode: 0o600 }), { signal: stop }).catch(
    (error: unknown) => {
      throw failed.signal.reason ?? error;
    },
  );
}

function add(
  zip: yazl.ZipFile,
  { path, pieces, compress }: Part,
  onWritten: (bytes: number, sha256: string) => void,
): void {
  // prettier-ignore
  // Digits hardly become smaller by more effort, which would take most of the time.
  zip.addReadStreamLazy(path, { ...(compress ? { compressionLevel: 1 } : { compress }), mtime: new Date() }, (give) => {
    const hash = createHash('sha256');
    let bytes = 0;
    async function* counted() {
      for await (const piece of pieces()) {
        hash.update(piece);
        bytes += piece.length;
        yield piece;
        // Long text is made between whatever else the server has to do.
        await setImmediate();
      }
      onWritten(bytes, hash.digest('hex'));
    }
    give(null, Readable.from(counted(), { highWaterMark: 2 }));
  });
}

const jsonPart = (path: string, value: () => unknown): Part => ({
  path,
  compress: true,
  pieces: () => [Buffer.from(`${JSON.stringify(value(), null, 1)}\n`)],
});

function recordingParts(database: Database, run: Run): Part[] {
  const label = run.label ?? String(run.id);
  async function* pieces(source: number) {
    for (const piece of recordingCsvPieces(await recordingByChannels(database, run, source))) yield Buffer.from(piece);
  }
  return [
    { path: bundlePaths.run(label), compress: true, pieces: () => pieces(0) },
    ...run.logs.map(({ source }) => ({ path: bundlePaths.log(label, source), compress: true, pieces: () => pieces(source) })), // prettier-ignore
  ];
}

function fileParts(database: Database, { job }: BundledJob): Part[] {
  async function* content(found: Promise<{ content: Buffer } | undefined>) {
    const one = await found;
    if (one) yield one.content;
  }
  const photos = job.photos.map(({ id }) => ({
    path: bundlePaths.photo(id),
    compress: false,
    pieces: () => content(photoContent(database, id)),
  }));
  const files = new Map(job.tuneFiles.map(({ id, sha256 }) => [sha256, id]));
  const tuneFiles = [...files].map(([sha256, id]) => ({
    path: bundlePaths.tuneFile(sha256),
    compress: true,
    pieces: () => content(tuneFileContent(database, id)),
  }));
  return [...photos, ...tuneFiles];
}

/** What is known of each instrument that the job's runs were made with. */
async function learnedOf(job: Job, dynos: DynoHistory): Promise<Record<string, CheckHistoryRecord>> {
  const devices = new Set(job.runs.map(({ device }) => device).filter((device) => device !== ''));
  const learned: Record<string, CheckHistoryRecord> = {};
  for (const device of devices)
    learned[device] = checkHistory.parse(JSON.parse(JSON.stringify(await dynos.of(device, job.id))));
  return learned;
}
