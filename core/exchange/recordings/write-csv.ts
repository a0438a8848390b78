import { sampleAt } from '../../numerics/sample-at.ts';
import Papa from 'papaparse';
import type { Recording } from '../../recording/recording.ts';
import { safeHeading } from '../tables/safe-heading.ts';

/** Lines are made so many at a time: whoever writes a long recording does other things in between. */
const linesAtOnce = 200;

const cell = (value: number) => (Number.isNaN(value) ? '' : Object.is(value, -0) ? '-0' : String(value));

/**
 * A recording as CSV text, piece by piece, that `readRecordingCsv` and `RecordingLines` read back to the same
 * numbers: every value is written with all its digits, NaN as an empty cell.
 */
export function* recordingCsvPieces(recording: Recording): Generator<string> {
  const fields = [
    'time [s]',
    ...recording.channels.map((channel) => (channel.unit ? `${channel.name} [${channel.unit}]` : channel.name)),
  ];
  yield `${Papa.unparse([fields.map((field) => safeHeading(field.replace(/[\r\n]+/g, ' ')))], { newline: '\n' })}\n`;
  const columns = [recording.time, ...recording.channels.map((channel) => channel.values)];
  for (let from = 0; from < recording.time.length; from += linesAtOnce) {
    const to = Math.min(recording.time.length, from + linesAtOnce);
    let piece = '';
    for (let row = from; row < to; row++) {
      for (let at = 0; at < columns.length; at++) piece += (at === 0 ? '' : ',') + cell(sampleAt(columns[at]!, row));
      piece += '\n';
    }
    yield piece;
  }
}

/** A recording as one CSV text. */
export const writeRecordingCsv = (recording: Recording): string => [...recordingCsvPieces(recording)].join('');
