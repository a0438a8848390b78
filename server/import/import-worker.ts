import { parentPort } from 'node:worker_threads';
import { Refusal } from '../../core/refusal.ts';
import { readImport, type ImportedAs, type ReadImport } from './read-import.ts';

/** A file to be read, by a number that its answer carries; or one that nobody waits for any more. */
export type ImportAsked = { ask: number; path: string; as: ImportedAs } | { cancel: number };

export type ImportAnswer = { ask: number } & (
  | { read: ReadImport }
  | { refusal: string }
  | { failure: string }
  | { progress: number }
);

/** Progress is told in steps of this. */
const step = 0.02;

/** Reads files apart from the server, so that no file keeps it from its pages. */
const port = parentPort;
const cancelled = new Set<number>();
/** One after the other: two large ones at once would need the room of both. */
let work: Promise<void> = Promise.resolve();

port?.on('message', (asked: ImportAsked) => {
  if ('cancel' in asked) cancelled.add(asked.cancel);
  else work = work.then(() => answer(asked.ask, asked.path, asked.as));
});

const say = (said: ImportAnswer, buffers: ArrayBuffer[] = []) => port?.postMessage(said, buffers);

async function answer(ask: number, path: string, as: ImportedAs): Promise<void> {
  let told = 0;
  const onPiece = (progress: number) => {
    if (cancelled.has(ask)) throw new Refusal('It was cancelled.');
    if (progress < told + step) return;
    told = progress;
    say({ ask, progress });
  };
  try {
    onPiece(0);
    const read = await readImport(path, as, onPiece);
    const columns = [read.recording.time, ...read.recording.channels.map(({ values }) => values)];
    // Columns may share their memory: each buffer is handed over once.
    say({ ask, read }, [...new Set(columns.map(({ buffer }) => buffer as ArrayBuffer))]);
  } catch (error) {
    say(
      error instanceof Refusal
        ? { ask, refusal: error.message }
        : { ask, failure: (error as Error).stack ?? String(error) },
    );
  } finally {
    cancelled.delete(ask);
  }
}
