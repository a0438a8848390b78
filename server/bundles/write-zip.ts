import { createHash } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { setImmediate } from 'node:timers/promises';
import yazl from 'yazl';

/** One file of a .zip: its bytes are made when its turn comes, so that no more than one recording is in memory. */
export interface Part {
  path: string;
  pieces: () => AsyncIterable<Buffer> | Iterable<Buffer>;
  /** What is compressed already is stored as it is. */
  compress: boolean;
}

/** A file of a .zip as it was written. */
export interface WrittenPart {
  path: string;
  bytes: number;
  sha256: string;
}

export const textPart = (path: string, text: string): Part => ({
  path,
  compress: true,
  pieces: () => [Buffer.from(text)],
});
const jsonBytes = (value: unknown) => Buffer.from(`${JSON.stringify(value, null, 1)}\n`);
export const jsonPart = (path: string, value: unknown): Part => ({
  path,
  compress: true,
  pieces: () => [jsonBytes(value)],
});

/**
 * Writes a .zip, part by part.
 * @param file where it goes
 * @param told how much of it is written, from 0 to 1
 * @param last a file that tells of all the others
 */
export async function writeZip(
  file: string,
  parts: readonly Part[],
  told: (done: number) => void,
  signal: AbortSignal,
  last?: { path: string; tells: (written: readonly WrittenPart[]) => unknown },
): Promise<void> {
  const zip = new yazl.ZipFile();
  const failed = new AbortController();
  zip.once('error', (error) => failed.abort(error));
  const written: WrittenPart[] = [];
  for (const [index, part] of parts.entries())
    add(zip, part, (bytes, sha256) => {
      written.push({ path: part.path, bytes, sha256 });
      told((index + 1) / parts.length);
    });
  // What it says is known when its turn comes.
  if (last)
    add(zip, { path: last.path, compress: true, pieces: () => [jsonBytes(last.tells(written))] }, () => undefined);
  zip.end();
  const stop = AbortSignal.any([signal, failed.signal]);
  await pipeline(zip.outputStream, createWriteStream(file, { mode: 0o600 }), { signal: stop }).catch(
    (error: unknown) => {
      throw failed.signal.reason ?? error;
    },
  );
}

function add(zip: yazl.ZipFile, part: Part, onWritten: (bytes: number, sha256: string) => void): void {
  // Digits hardly become smaller by more effort, which would take most of the time.
  const effort = part.compress ? { compressionLevel: 1 } : { compress: false };
  zip.addReadStreamLazy(part.path, { ...effort, mtime: new Date() }, (give) => {
    const hash = createHash('sha256');
    let bytes = 0;
    async function* counted() {
      for await (const piece of part.pieces()) {
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
