import { createReadStream } from 'node:fs';
import { stat } from 'node:fs/promises';
import type { Air } from '../../core/air/air.ts';
import type { DynoProfile } from '../../core/dyno/dyno-profile.ts';
import { airFromColumns } from '../../core/exchange/air-columns.ts';
import { RecordingReader } from '../../core/exchange/read-csv.ts';
import type { Recording } from '../../core/recording/recording.ts';
import { preparedSweep } from '../../core/reduction/prepared-sweep.ts';

/** What a file holds, and how it was taken. */
export interface ReadImport {
  recording: Recording;
  remarks: string[];
  /** From the file's own columns; undefined where it has none. */
  air: Air | undefined;
}

/** How a recording of a file is to be taken. */
export interface ImportedAs {
  dyno: DynoProfile;
  engineToDrumRatio: number | null;
}

const pieceBytes = 2 ** 20;

/**
 * Reads a recording from a file, piece by piece.
 * @param onPiece is told after each piece how much of the file has been read, 0 to 1; what it throws ends the reading
 * @throws Refusal with what is wrong with it: here, and not at every look at the run
 */
export async function readImport(
  path: string,
  { dyno, engineToDrumRatio }: ImportedAs,
  onPiece: (read: number) => void = () => undefined,
): Promise<ReadImport> {
  const reader = new RecordingReader();
  const decoder = new TextDecoder();
  const { size } = await stat(path);
  let read = 0;
  for await (const piece of createReadStream(path, { highWaterMark: pieceBytes }) as AsyncIterable<Buffer>) {
    reader.push(decoder.decode(piece, { stream: true }));
    read += piece.length;
    onPiece(read / size);
  }
  reader.push(decoder.decode());
  const { recording, remarks } = reader.end();
  preparedSweep(recording, dyno, engineToDrumRatio ?? undefined);
  return { recording, remarks, air: airFromColumns(recording) };
}
