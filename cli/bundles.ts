import { constants, createWriteStream, openAsBlob, statSync } from 'node:fs';
import { access } from 'node:fs/promises';
import { basename, join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { bundleMade, bundleTaken, type BundleTaken } from '../contract/job/bundle.ts';
import { jobList } from '../contract/job/records.ts';
import { Refusal } from '../core/refusal.ts';
import { asked, askedInLines, serverOf } from './running-suvok.ts';
import { sortedWords, wordOf, type Words } from './words.ts';

export const exportUsage = `suvok export JOB | all --to FILE-OR-FOLDER [--owner yes|no] [--server ADDRESS]
    A job as one file that another Suvok takes in: recordings as CSV, logs, setups, notes, photos, tune files, kept
    reports, and what its judgements rest on. "all" writes every job into a folder. --owner no leaves owner, plate,
    contact and kept reports out. Made by the Suvok that runs here (http://127.0.0.1:5180, or --server); where people
    sign in it is made on the page instead.`;

export const importUsage = `suvok import FILE… [--server ADDRESS]
    Takes jobs in that "suvok export" or the page wrote: all of a job, or nothing. One that is here is left as it is.`;

/** A job that was written, and where. */
interface Exported {
  job: number;
  file: string;
  bytes: number;
}

/**
 * `suvok export`: one job, or the whole shop.
 * @throws Refusal with a sentence, the server's own among them
 */
export async function exportCommand(words: readonly string[]): Promise<{ jobs: Exported[] }> {
  const sorted = sortedWords(words, ['to', 'owner', 'server']);
  const [which, ...more] = sorted.before;
  if (which === undefined || more.length > 0 || !/^([1-9]\d*|all)$/.test(which))
    throw new Refusal(`Say the number of one job, or all. ${exportUsage}`);
  const to = wordOf(sorted, 'to');
  if (to === undefined) throw new Refusal('Say where it goes: --to FILE, or --to FOLDER.');
  const owner = wordOf(sorted, 'owner') ?? 'yes';
  if (owner !== 'yes' && owner !== 'no') throw new Refusal('Say --owner yes or --owner no.');
  const isFolder = statSync(to, { throwIfNoEntry: false })?.isDirectory() ?? false;
  if (which === 'all' && !isFolder) throw new Refusal(`${to} is no folder. All jobs go into one: make it first.`);
  const server = serverOf(sorted);
  const jobs: Exported[] = [];
  for (const job of which === 'all' ? await allJobs(server) : [Number(which)])
    jobs.push({
      job,
      ...(await exported(server, job, owner === 'yes', (name) => (isFolder ? join(to, `${job}-${name}`) : to))),
    });
  return { jobs };
}

async function exported(
  server: string,
  job: number,
  withOwner: boolean,
  placeOf: (name: string) => string,
): Promise<Omit<Exported, 'job'>> {
  const made = await askedInLines(server, `/jobs/${job}/bundle`, JSON.stringify({ withOwner }), bundleMade);
  const { body, ok } = await asked(server, `/bundles/${made.fetch}`);
  if (!ok || !body) throw new Refusal(`Job ${job} was written and could not be fetched. Try again.`);
  const file = placeOf(made.name);
  try {
    await pipeline(Readable.fromWeb(body as Parameters<typeof Readable.fromWeb>[0]), createWriteStream(file));
  } catch (error) {
    throw new Refusal(`${file} could not be written (${(error as NodeJS.ErrnoException).code ?? 'it broke off'}).`);
  }
  return { file, bytes: made.bytes };
}

/** Numbers of all jobs, the first first. */
async function allJobs(server: string): Promise<number[]> {
  const found: number[] = [];
  for (;;) {
    const response = await asked(server, `/jobs?most=200&offset=${found.length}`);
    const page = jobList.safeParse(await response.json());
    if (!page.success) throw new Refusal(`What answers at ${server} does not list its jobs: it may ask who you are.`);
    found.push(...page.data.jobs.map(({ id }) => id));
    if (page.data.jobs.length === 0 || found.length >= page.data.total) return found.sort((a, b) => a - b);
  }
}

/**
 * `suvok import`: jobs from their files, one after the other.
 * @throws Refusal that names the file; those before it are in
 */
export async function importCommand(words: readonly string[]): Promise<{ files: ({ file: string } & BundleTaken)[] }> {
  const sorted: Words = sortedWords(words, ['server']);
  if (sorted.before.length === 0) throw new Refusal(`Say which files. ${importUsage}`);
  const files: ({ file: string } & BundleTaken)[] = [];
  for (const file of sorted.before) {
    const form = new FormData();
    form.append('file', await contentOf(file), basename(file));
    try {
      files.push({ file, ...(await askedInLines(serverOf(sorted), '/bundles', form, bundleTaken)) });
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
      const before = files.length > 0 ? ` Taken in before it: ${files.map((one) => one.file).join(', ')}.` : '';
      throw new Refusal(`${file}: ${error.message}${before}`);
    }
  }
  return { files };
}

async function contentOf(file: string): Promise<Blob> {
  try {
    await access(file, constants.R_OK);
    return await openAsBlob(file);
  } catch (error) {
    throw new Refusal(`${file} could not be read (${(error as NodeJS.ErrnoException).code}).`);
  }
}
