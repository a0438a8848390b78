import { readFile } from 'node:fs/promises';
import {
  bundleFormat,
  bundlePaths,
  bundleVersion,
  type BundledJob,
  type BundleManifest,
  type BundleWishes,
} from '../../contract/job/bundle.ts';
import { checkHistory, type CheckHistoryRecord } from '../../contract/job/check-history.ts';
import type { Job } from '../../contract/job/records.ts';
import { bundledJobOf, keysOfJob } from '../../store/jobs/bundled-job.ts';
import type { Database } from '../../store/database/database.ts';
import { photoContent, tuneFileContent } from '../../store/jobs/files.ts';
import type { DynoHistory } from '../dyno-history.ts';
import { CsvThread } from './csv-thread.ts';
import { recordingParts } from './recording-parts.ts';
import { jsonPart, writeZip, type Part, type WrittenPart } from './write-zip.ts';

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
  const csv = new CsvThread();
  const parts = [
    jsonPart(bundlePaths.job, bundled),
    ...bundled.job.runs.flatMap((run) => recordingParts(database, csv, run)),
    ...fileParts(database, bundled),
  ];
  const { version } = JSON.parse(await readFile(new URL('../../package.json', import.meta.url), 'utf8')) as {
    version: string;
  };
  const manifest = (files: readonly WrittenPart[]): BundleManifest => ({
    format: bundleFormat,
    version: bundleVersion,
    madeAt: new Date().toISOString(),
    madeBy: version,
    job: keys.job,
    vehicle: job.vehicle,
    question: job.question,
    ownerLeftOut: !wishes.withOwner,
    runsLeftOut: job.runs.length - bundled.job.runs.length,
    files: [...files],
  });
  // The last, for it tells of all the others.
  await writeZip(file, parts, told, signal, { path: bundlePaths.manifest, tells: manifest }).finally(
    () => void csv.close(),
  );
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
  for (const device of devices) {
    const known = checkHistory.parse(JSON.parse(JSON.stringify(await dynos.of(device, job.id))));
    // Which cars others brought is nobody else's business.
    learned[device] = { ...known, repeats: known.repeats.map((repeats) => ({ ...repeats, car: undefined })) };
  }
  return learned;
}
