import { parentPort } from 'node:worker_threads';
import { recordingCsvPieces } from '../../core/exchange/recordings/write-csv.ts';
import type { Recording } from '../../core/recording/recording.ts';

/** A recording to be written, or the next piece of the one that is being written. */
export type CsvAsked = { recording: Recording } | { next: true };
/** A piece of text; null after the last. */
export type CsvAnswer = { piece: Uint8Array | null };

/** Text is handed over in pieces of about so many letters. */
const pieceLetters = 200_000;

/** Writes numbers as text apart from the server: a long recording holds up no page, and its garbage lies here. */
const port = parentPort;
const encoder = new TextEncoder();
let pieces: Iterator<string> | undefined;

port?.on('message', (asked: CsvAsked) => {
  if ('recording' in asked) pieces = recordingCsvPieces(asked.recording)[Symbol.iterator]();
  let text = '';
  while (pieces && text.length < pieceLetters) {
    const { done, value } = pieces.next();
    if (done) pieces = undefined;
    else text += value;
  }
  const piece = text === '' ? null : encoder.encode(text);
  port.postMessage({ piece } satisfies CsvAnswer, piece ? [piece.buffer as ArrayBuffer] : []);
});
