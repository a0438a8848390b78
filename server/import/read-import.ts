import { createReadStream } from 'node:fs';
import { stat } from 'node:fs/promises';
import type { Air } from '../../core/air/air.ts';
import type { DynoProfile } from '../../core/dyno/dyno-profile.ts';
import { airFromColumns } from '../../core/exchange/recordings/air-columns.ts';
import { RecordingReader } from '../../core/exchange/recordings/read-csv.ts';
import type { Recording } from '../../core/recording/recording.ts';
import { startTemperaturesOf } from '../../core/recording/start-temperatures.ts';
import { kindOfFile, mustBe, type FileKind } from '../../core/run-kinds/kind-of-file.ts';

/** What a file holds, and how it was taken. */
export interface ReadImport {
  recording: Recording;
  remarks: string[];
  /** As it was said, or as the file itself tells. */
  kind: ImportedKind;
  startTemperatures: Record<string, number>;
  /** From the file's own columns; undefined where it has none. */
  air: Air | undefined;
}

/** How a recording of a file is to be taken. */
export interface ImportedAs {
  dyno: DynoProfile;
  engineToDrumRatio: number | null;
  kind?: ImportedKind | undefined;
}

type ImportedKind = FileKind | 'conditioning';

const kindRemarks = {
  step: 'It holds steady speeds one after the other, so it was taken as steady-speed steps and counts in no power figure.',
  'coast-down': 'The drum only coasts in it, so it was taken as a coast-down.',
  idle: 'The drum stands in it and the engine idles, so it was taken as an idle.',
  'cold-start': 'The engine is started in it with the drum standing, so it was taken as a cold start.',
  cruise: 'It holds one speed at part load, so it was taken as a cruise.',
  'road-check': 'It has a road speed and no drum’s, so it was taken as a road check and counts in no power figure.',
  transient:
    'The throttle is opened in it at a held speed, so it was taken as a response and counts in no power figure.',
} satisfies Record<Exclude<FileKind, 'power'>, string>;

const pieceBytes = 2 ** 20;

/**
 * Reads a recording from a file, piece by piece.
 * @param onPiece is told after each piece how much of the file has been read, 0 to 1; what it throws ends the reading
 * @throws Refusal with what is wrong with it: here, and not at every look at the run
 */
export async function readImport(
  path: string,
  { dyno, engineToDrumRatio, kind: said }: ImportedAs,
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
  const ratio = engineToDrumRatio ?? undefined;
  const told = said === undefined ? kindOfFile(recording, dyno, ratio) : undefined;
  if (said) mustBe(said === 'conditioning' ? 'power' : said, recording, dyno, ratio);
  if (told && told !== 'power') remarks.push(kindRemarks[told]);
  const kind = said ?? told ?? 'power';
  return {
    recording,
    remarks,
    kind,
    startTemperatures: startTemperaturesOf(recording),
    air: airFromColumns(recording),
  };
}
