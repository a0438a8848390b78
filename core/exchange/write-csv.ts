import Papa from 'papaparse';
import type { Recording } from '../recording/recording.ts';
import { safeHeading } from './safe-heading.ts';

/**
 * A recording as CSV text that `readRecordingCsv` reads back to the same
 * numbers: every value is written with all its digits, NaN as an empty cell.
 */
export function writeRecordingCsv(recording: Recording): string {
  const fields = [
    'time [s]',
    ...recording.channels.map((channel) => (channel.unit ? `${channel.name} [${channel.unit}]` : channel.name)),
  ];
  const columns = [recording.time, ...recording.channels.map((channel) => channel.values)];
  const data = Array.from(recording.time, (_, row) =>
    columns.map((column) => (Number.isNaN(column[row]!) ? '' : column[row]!)),
  );
  return Papa.unparse({ fields: fields.map(safeHeading), data }, { newline: '\n' }) + '\n';
}
