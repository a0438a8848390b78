import type { Run } from '../../contract/job/records.ts';
import { decodedText, readLogTable, type LogTable } from '../../core/exchange/loggers/log-table.ts';
import { recordingToBytes } from '../../core/exchange/recordings/recording-bytes.ts';
import { guessedMapping, headingsKey, recordingBy, type LogMapping } from '../../core/exchange/loggers/log-mapping.ts';
import {
  partOfLog as stretchOf,
  runsInLog,
  soughtRun,
  type FoundInLog,
} from '../../core/log/logger-file/pulls-in-log.ts';
import { valuesOf, type Recording } from '../../core/recording/recording.ts';
import { Refusal } from '../../core/refusal.ts';
import { cachedPull } from './run-readings.ts';

/** What a logger's file holds, and a first guess at what it is. */
export type OpenedLog =
  | {
      rows: number;
      remarks: string[];
      columns: { heading: string; unit: string; first: number[] }[];
      headings: string;
      guess: LogMapping;
    }
  | { refusal: string };

let opened: { file: File; table: LogTable } | undefined;

/** Opens a logger's file and keeps it until another one is opened. */
export async function openLog(file: File): Promise<OpenedLog> {
  try {
    const table = readLogTable(decodedText(new Uint8Array(await file.arrayBuffer())));
    opened = { file, table };
    const { rows, remarks, columns } = table;
    return {
      rows,
      remarks,
      columns: columns.map(({ heading, unit, values }) => ({
        heading,
        unit,
        first: [0, 0.25, 0.5, 0.75].map((share) => values[Math.floor(share * values.length)]!),
      })),
      headings: headingsKey(columns),
      guess: guessedMapping(table),
    };
  } catch (error) {
    if (error instanceof Refusal) return { refusal: error.message };
    throw error;
  }
}

/** Where runs lie in the file that is open; a refusal where the mapping makes no recording of it. */
export async function findInLog(
  mapping: LogMapping,
  runs: readonly Run[],
): Promise<FoundInLog[] | { refusal: string }> {
  try {
    const log = recordingOf(mapping);
    const sought = await Promise.all(runs.map(async (run) => soughtRun(run, (await cachedPull(run)).sweep)));
    // A mapping without the engine speed was refused before.
    return runsInLog(sought, {
      time: log.time,
      rpm: valuesOf(log, 'engineSpeed') ?? new Float64Array(log.time.length),
    });
  } catch (error) {
    if (error instanceof Refusal) return { refusal: error.message };
    throw error;
  }
}

/** A stretch of the file that is open, as it is sent. */
export function partOfLog(mapping: LogMapping, fromS: number, toS: number): Uint8Array {
  return recordingToBytes(stretchOf(recordingOf(mapping), fromS, toS));
}

function recordingOf(mapping: LogMapping): Recording {
  if (!opened) throw new Refusal('The file is no longer open: choose it again.');
  return recordingBy(mapping, opened.table);
}
