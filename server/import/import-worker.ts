import { parentPort } from 'node:worker_threads';
import { Refusal } from '../../core/refusal.ts';
import { readImport, type ImportedAs, type ReadImport } from './read-import.ts';

/** A file to be read, by a number that its answer carries. */
export interface ImportAsked {
  ask: number;
  bytes: Uint8Array;
  as: ImportedAs;
}

export type ImportAnswer = { ask: number } & ({ read: ReadImport } | { refusal: string } | { failure: string });

/** Reads files apart from the server, so that no file keeps it from its instruments. */
const port = parentPort;
port?.on('message', ({ ask, bytes, as }: ImportAsked) => {
  try {
    const read = readImport(bytes, as);
    const columns = [read.recording.time, ...read.recording.channels.map(({ values }) => values)];
    // Columns may share their memory: each buffer is handed over once.
    const buffers = [...new Set(columns.map(({ buffer }) => buffer as ArrayBuffer))];
    port.postMessage({ ask, read } satisfies ImportAnswer, buffers);
  } catch (error) {
    const answer: ImportAnswer =
      error instanceof Refusal ? { ask, refusal: error.message } : { ask, failure: (error as Error).stack ?? String(error) }; // prettier-ignore
    port.postMessage(answer);
  }
});
