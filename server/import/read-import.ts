import type { Air } from '../../core/air/air.ts';
import type { DynoProfile } from '../../core/dyno/dyno-profile.ts';
import { airFromColumns } from '../../core/exchange/air-columns.ts';
import { readRecordingCsv } from '../../core/exchange/read-csv.ts';
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

/**
 * Reads a recording from a file's bytes.
 * @throws Refusal with what is wrong with it: here, and not at every look at the run
 */
export function readImport(bytes: Uint8Array, { dyno, engineToDrumRatio }: ImportedAs): ReadImport {
  const { recording, remarks } = readRecordingCsv(new TextDecoder().decode(bytes));
  preparedSweep(recording, dyno, engineToDrumRatio ?? undefined);
  return { recording, remarks, air: airFromColumns(recording) };
}
