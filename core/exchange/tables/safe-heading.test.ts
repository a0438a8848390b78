import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { readRecordingCsv } from '../recordings/read-csv.ts';
import { plainHeading, safeHeading } from './safe-heading.ts';
import { writeRecordingCsv } from '../recordings/write-csv.ts';

test('no heading is a formula, and each is read back as it was', () => {
  fc.assert(
    fc.property(fc.oneof(fc.string(), fc.stringMatching(/^[=+\-@\t\r'][A-Z(]{0,6}$/)), (text) => {
      expect(safeHeading(text)).not.toMatch(/^[=+\-@\t\r]/);
      if (!text.startsWith("'")) expect(plainHeading(safeHeading(text))).toBe(text);
    }),
  );
});

test('a channel that is named like a formula goes into a file and comes back', () => {
  const rows = (valueOf: (row: number) => number) => Float64Array.from({ length: 100 }, (_, row) => valueOf(row));
  const recording = {
    time: rows((row) => row / 100),
    channels: [
      { name: 'rollerSpeed', unit: 'rad/s', values: rows(() => 5) },
      { name: '=HYPERLINK', unit: '', values: rows((row) => row - 1) },
    ],
  };
  const text = writeRecordingCsv(recording);
  expect(text).toContain("'=HYPERLINK");
  // Numbers stay numbers, the negative ones too.
  expect(text).toContain('0,5,-1');
  expect(readRecordingCsv(text).recording.channels.at(-1)).toMatchObject({ name: '=HYPERLINK' });
});
