import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Recording } from '../../recording/recording.ts';
import { RecordingLines } from './recording-lines.ts';
import { recordingCsvPieces, writeRecordingCsv } from './write-csv.ts';

const channels = [
  { name: 'drum speed', unit: 'rpm' },
  { name: '=odd, "name"', unit: '' },
];
const number = fc.oneof(fc.double(), fc.constantFrom(NaN, -0, 0, 1e-320, Infinity, 0.1 + 0.2));
const recordings = fc
  .array(fc.tuple(fc.double({ noNaN: true }), number, number), { maxLength: 60 })
  .map((rows): Recording => ({
    time: Float64Array.from(rows, ([time]) => time),
    channels: channels.map((channel, index) => ({
      ...channel,
      values: Float64Array.from(rows, (row) => row[index + 1]!),
    })),
  }));

test('a recording comes back to the last bit, wherever its text was cut', () => {
  fc.assert(
    fc.property(recordings, fc.array(fc.nat(4000), { maxLength: 8 }), (recording, cuts) => {
      const text = writeRecordingCsv(recording);
      const reader = new RecordingLines(channels);
      const places = [0, ...cuts.map((cut) => cut % (text.length + 1)).sort((a, b) => a - b), text.length];
      places.slice(1).forEach((to, index) => reader.push(text.slice(places[index], to)));
      expect(reader.end()).toEqual(recording);
    }),
  );
});

test('a recording longer than the room at first is written in pieces and read whole', () => {
  const time = Float64Array.from({ length: 10_001 }, (_, index) => index / 1000);
  const recording = { time, channels: channels.map((channel) => ({ ...channel, values: time.map(Math.sin) })) };
  const reader = new RecordingLines(channels);
  let pieces = 0;
  for (const piece of recordingCsvPieces(recording)) {
    pieces++;
    reader.push(piece);
  }
  expect(pieces).toBe(1 + 51);
  expect(reader.end()).toEqual(recording);
});

test.each([
  ['time [s],a,b\n0,1\n', 'line 2 has 2 cells, not 3'],
  ['time [s],a,b\n0,1,2\n1,two,3\n', '“two” in line 3 is no number'],
  ['time [s],a,b\n0,1,2\n1,2', 'its last line (3) is not whole'],
])('%j is refused by its line', (text, sentence) => {
  const read = () => {
    const reader = new RecordingLines(channels);
    reader.push(text);
    reader.end();
  };
  expect(read).toThrow(sentence);
});
