import type { Recording } from '../recording/recording.ts';
import { Refusal } from '../refusal.ts';
import { columnsOf, type Column } from './columns.ts';
import { cellNumber, csvTable } from './csv-table.ts';
import { medianOf } from '../numerics/quantile.ts';

export interface ReadRecording {
  recording: Recording;
  /** What was dropped or taken otherwise than written, a sentence each. */
  remarks: string[];
}

/** A larger share of unusable rows than this refuses the file. */
const mostUnusable = 0.2;
const leastRows = 20;

/**
 * Reads a recording from CSV text.
 *
 * Isolated cells that hold no number cost their row where figures depend on
 * them, and are left blank elsewhere; rows whose time repeats or steps back
 * are left out. All of it is said in the remarks.
 *
 * @throws Refusal with a sentence when the file cannot be a recording
 */
export function readRecordingCsv(text: string): ReadRecording {
  const { header, rows } = csvTable(text);
  const { columns, time, remarks } = columnsOf(header);
  if (rows.length === 0) throw new Refusal('The file has a header line but no rows under it.');
  const used = usableRows(rows, columns, time, remarks);
  if (used.length < leastRows) {
    throw new Refusal(`The file holds only ${used.length} usable rows: too few for a sweep.`);
  }
  const recording: Recording = {
    time: Float64Array.from(used, (row) => numberIn(row, time)),
    channels: columns
      .filter((column) => column !== time)
      .map((column) => ({
        name: column.name,
        unit: column.unit,
        values: Float64Array.from(used, (row) => numberIn(row, column)),
      })),
  };
  remarkOnGaps(recording.time, remarks);
  return { recording, remarks };
}

function numberIn(row: readonly string[], column: Column): number {
  return column.toChannelUnit(cellNumber(row[column.index] ?? ''));
}

function usableRows(rows: string[][], columns: readonly Column[], time: Column, remarks: string[]): string[][] {
  const needed = columns.filter((column) => column.needed);
  const others = columns.filter((column) => !column.needed);
  let unreadable = 0;
  let repeated = 0;
  let backward = 0;
  let blanked = 0;
  let latest = -Infinity;
  const used = rows.filter((row) => {
    if (needed.some((column) => Number.isNaN(numberIn(row, column)))) {
      unreadable++;
      return false;
    }
    const at = numberIn(row, time);
    if (at <= latest) {
      if (at === latest) repeated++;
      else backward++;
      return false;
    }
    latest = at;
    blanked += others.filter(
      (column) => (row[column.index] ?? '') !== '' && Number.isNaN(numberIn(row, column)),
    ).length;
    return true;
  });
  if (repeated + backward > rows.length / 2) {
    throw new Refusal(
      `Time does not advance in the file: ${repeated + backward} of ${rows.length} rows are no later than the row before. Check the time column and its unit.`,
    );
  }
  if (backward > mostUnusable * rows.length) {
    throw new Refusal(
      `Time steps back in the file and ${backward} of ${rows.length} rows lie before it. Split the recordings and import them one by one.`,
    );
  }
  if (unreadable > mostUnusable * rows.length) {
    throw new Refusal(
      `${unreadable} of ${rows.length} rows have no readable number in a column that figures need (${needed.map((column) => column.name).join(', ')}).`,
    );
  }
  say(remarks, unreadable, 'row', 'left out: a needed cell held no number.');
  say(remarks, repeated, 'row', 'left out: the time repeats the row before.');
  say(remarks, backward, 'row', 'left out: the time steps back.');
  say(remarks, blanked, 'cell', 'left blank: it held no number.');
  return used;
}

function say(remarks: string[], count: number, noun: string, what: string): void {
  if (count > 0) remarks.push(`${count} ${noun}${count === 1 ? ' was' : 's were'} ${what}`);
}

function remarkOnGaps(time: Float64Array, remarks: string[]): void {
  const steps = time.subarray(1).map((at, index) => at - time[index]!);
  const usual = medianOf(steps);
  let gaps = 0;
  let longest = 0;
  let longestAt = 0;
  steps.forEach((step, index) => {
    if (step <= 2.5 * usual) return;
    gaps++;
    if (step > longest) [longest, longestAt] = [step, time[index]!];
  });
  if (gaps > 0) {
    remarks.push(
      `${gaps} gap${gaps === 1 ? '' : 's'} in the samples; the longest lasts ${longest.toFixed(2)} s at ${longestAt.toFixed(2)} s.`,
    );
  }
}
