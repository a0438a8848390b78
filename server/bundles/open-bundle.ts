import { createHash } from 'node:crypto';
import type { Readable } from 'node:stream';
import { openPromise, type Entry, type ZipFile } from 'yauzl';
import type { z } from 'zod';
import {
  bundledJob,
  bundleManifest,
  bundlePaths,
  bundleVersion,
  type BundledJob,
  type BundleManifest,
} from '../../contract/job/bundle.ts';
import { problemIn } from '../../contract/files/machine-and-air.ts';
import type { Run } from '../../contract/job/records.ts';
import { cleanJson, jsonIn, UncleanInput } from '../../contract/values/text.ts';
import { RecordingLines } from '../../core/exchange/recordings/recording-lines.ts';
import type { Recording } from '../../core/recording/recording.ts';
import { Refusal } from '../../core/refusal.ts';
import type { BundleContents } from '../../store/jobs/take-in-job.ts';

/** More than any job has. */
const mostEntries = 50_000;
/** A document of more bytes is none of ours, however small it was made. */
const mostJsonBytes = 200e6;
const mostFileBytes = 500e6;

const broken = (what: string) => new Refusal(`This bundle cannot be taken in: ${what}. Nothing was stored.`);

/**
 * A bundle that lies on the disk, looked at as a whole before anything of it is used: every file that it promises is
 * there, and its words have their form. Each file is held against its hash when it is read.
 */
export class OpenBundle implements BundleContents {
  private constructor(
    private readonly zip: ZipFile,
    private readonly entries: ReadonlyMap<string, Entry>,
    readonly manifest: BundleManifest,
    readonly bundled: BundledJob,
    private readonly signal: AbortSignal,
  ) {}

  /** @throws Refusal that says what is wrong with the file */
  static async at(path: string, signal: AbortSignal): Promise<OpenBundle> {
    const zip = await openPromise(path, { autoClose: false, lazyEntries: true }).catch(() => {
      throw broken('it is no .zip file, or its end is missing');
    });
    try {
      const entries = await entriesOf(zip);
      const manifest = await manifestOf(zip, entries);
      const promised = new Map(manifest.files.map((file) => [file.path, file]));
      const missing = manifest.files.find(({ path: file }) => !entries.has(file));
      if (missing) throw broken(`${missing.path} is missing in it`);
      const words = promised.get(bundlePaths.job);
      if (!words) throw broken(`${bundlePaths.job} is missing in it`);
      const bundled = formOf(
        bundlePaths.job,
        await bytesOf(zip, entries, bundlePaths.job, mostJsonBytes, words),
        bundledJob,
      );
      const needed = filesOf(bundled).find((file) => !promised.has(file));
      if (needed) throw broken(`${needed} is missing in it`);
      return new OpenBundle(zip, entries, manifest, bundled, signal);
    } catch (error) {
      zip.close();
      throw error;
    }
  }

  close(): void {
    this.zip.close();
  }

  async recording(path: string, channels: Run['channels']): Promise<Recording> {
    const lines = new RecordingLines(channels.map(({ name, unit }) => ({ name, unit })));
    const decoder = new TextDecoder();
    try {
      await this.read(path, (piece) => lines.push(decoder.decode(piece, { stream: true })));
      return lines.end();
    } catch (error) {
      if (error instanceof Refusal && !error.message.startsWith('This bundle'))
        throw broken(`${path}: ${error.message}`);
      throw error;
    }
  }

  async bytes(path: string): Promise<Buffer> {
    const pieces: Buffer[] = [];
    await this.read(path, (piece) => pieces.push(piece));
    return Buffer.concat(pieces);
  }

  private async read(path: string, take: (piece: Buffer) => void): Promise<void> {
    if (this.signal.aborted) throw new Refusal('It was cancelled. Nothing was stored.');
    const promised = this.manifest.files.find((file) => file.path === path);
    await readEntry(this.zip, this.entries, path, mostFileBytes, promised, take);
  }
}

/** The files beside the words that a bundled job speaks of. */
function filesOf({ job }: BundledJob): string[] {
  const ofRun = ({ label, id, logs }: Run) => {
    const name = label ?? String(id);
    return [bundlePaths.run(name), ...logs.map(({ source }) => bundlePaths.log(name, source))];
  };
  return [
    ...job.runs.flatMap(ofRun),
    ...job.photos.map(({ id }) => bundlePaths.photo(id)),
    ...job.tuneFiles.map(({ sha256 }) => bundlePaths.tuneFile(sha256)),
  ];
}

async function entriesOf(zip: ZipFile): Promise<Map<string, Entry>> {
  if (zip.entryCount > mostEntries) throw broken(`it holds ${zip.entryCount} files`);
  const entries = new Map<string, Entry>();
  try {
    for await (const entry of zip.eachEntry()) entries.set(entry.fileName, entry);
  } catch (error) {
    throw broken(`its list of files is broken (${(error as Error).message})`);
  }
  return entries;
}

async function manifestOf(zip: ZipFile, entries: ReadonlyMap<string, Entry>): Promise<BundleManifest> {
  const path = bundlePaths.manifest;
  if (!entries.has(path))
    throw new Refusal('This .zip file is no job bundle: it has no bundle.json. Nothing was stored.');
  const bytes = await bytesOf(zip, entries, path, mostJsonBytes);
  const { version } = (jsonIn(bytes.toString('utf8')) ?? {}) as { version?: number };
  if (typeof version === 'number' && version > bundleVersion)
    throw broken('a newer Suvok wrote it; bring this one up to date first');
  return formOf(path, bytes, bundleManifest);
}

function formOf<Schema extends z.ZodType>(path: string, bytes: Buffer, schema: Schema): z.output<Schema> {
  const parsed = schema.safeParse(cleaned(path, jsonIn(bytes.toString('utf8'))));
  if (!parsed.success) throw broken(`${path} is not as it must be (${problemIn(parsed.error)})`);
  return parsed.data;
}

/** Text of a bundle comes from outside, as that of a request does. */
function cleaned(path: string, value: unknown): unknown {
  try {
    return cleanJson(value);
  } catch (error) {
    throw error instanceof UncleanInput ? broken(`${path}: ${error.field}: ${error.message}`) : error;
  }
}

interface Promised {
  bytes: number;
  sha256: string;
}

async function bytesOf(
  zip: ZipFile,
  entries: ReadonlyMap<string, Entry>,
  path: string,
  most: number,
  promised?: Promised,
): Promise<Buffer> {
  const pieces: Buffer[] = [];
  await readEntry(zip, entries, path, most, promised, (piece) => pieces.push(piece));
  return Buffer.concat(pieces);
}

/** Reads a file of the bundle in pieces, and holds it against what was promised of it. */
async function readEntry(
  zip: ZipFile,
  entries: ReadonlyMap<string, Entry>,
  path: string,
  most: number,
  promised: Promised | undefined,
  take: (piece: Buffer) => void,
): Promise<void> {
  const entry = entries.get(path);
  if (!entry) throw broken(`${path} is missing in it`);
  const hash = createHash('sha256');
  let bytes = 0;
  try {
    const stream: Readable = await zip.openReadStreamPromise(entry);
    for await (const piece of stream as AsyncIterable<Buffer>) {
      bytes += piece.length;
      if (bytes > most) throw broken(`${path} is larger than anything a job holds`);
      hash.update(piece);
      take(piece);
    }
  } catch (error) {
    if (error instanceof Refusal) throw error;
    throw broken(`${path} cannot be read (${(error as Error).message})`);
  }
  if (promised && (bytes !== promised.bytes || hash.digest('hex') !== promised.sha256))
    throw broken(`${path} is not what was written: the file was damaged or changed on its way`);
}
