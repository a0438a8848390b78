import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { Refusal } from '../../refusal.ts';
import { generatedRun } from '../../testing/generated-run.ts';
import { airFromColumns, withAirColumns } from './air-columns.ts';
import { readRecordingCsv } from './read-csv.ts';
import { writeRecordingCsv } from './write-csv.ts';

const rows = Array.from({ length: 30 }, (_, index) => [
  (index * 0.01).toFixed(2),
  (60 + index * 0.1).toFixed(2),
  String(2000 + index),
]);
const header = ['time [s]', 'rollerSpeed [rad/s]', 'engineSpeed [rpm]'];
const file = (lines: string[][], delimiter = ',', end = '\n') =>
  lines.map((line) => line.join(delimiter)).join(end) + end;
const usual = file([header, ...rows]);

function changed(row: number, column: number, cell: string): string {
  return file([
    header,
    ...rows.map((cells, at) => (at === row ? cells.map((old, place) => (place === column ? cell : old)) : cells)),
  ]);
}

describe('what is accepted', () => {
  const expected = readRecordingCsv(usual).recording;
  const decimalComma = (cells: string[]) => cells.map((cell) => cell.replace('.', ','));

  test.each([
    ['semicolons', file([header, ...rows], ';')],
    ['tabs', file([header, ...rows], '\t')],
    ['decimal commas', file([header, ...rows.map(decimalComma)], ';')],
    ['quoted decimal commas', file([header, ...rows.map((cells) => decimalComma(cells).map((cell) => `"${cell}"`))])],
    ['a BOM', '\uFEFF' + usual],
    ['CR LF', file([header, ...rows], ',', '\r\n')],
    ['blanks around cells', file([header, ...rows].map((cells) => cells.map((cell) => `  ${cell} `)))],
    ['empty lines', usual.replaceAll('\n', '\n\n')],
    [
      'other ways to write names and units',
      file([['Time (sec)', 'roller_speed [rad/s]', 'Engine Speed [1/min]'], ...rows]),
    ],
  ])('%s', (_, text) => {
    const { recording, remarks } = readRecordingCsv(text);
    expect(remarks).toEqual([]);
    expect(recording).toEqual(expected);
  });

  test('units are converted', () => {
    const { recording } = readRecordingCsv(file([['time [ms]', 'rollerSpeed [rpm]', 'engineSpeed [rad/s]'], ...rows]));
    expect(recording.time[10]).toBeCloseTo(0.0001, 10);
    expect(recording.channels[0]!.values[0]).toBeCloseTo((60 * Math.PI) / 30, 10);
    expect(recording.channels[1]!.values[0]).toBeCloseTo((2000 * 30) / Math.PI, 8);
  });

  test.each([
    ['an isolated bad cell costs its row', changed(5, 1, 'n/a'), 29, /1 row was left out: a needed cell/],
    ['a repeated time', changed(5, 0, '0.04'), 29, /1 row was left out: the time repeats/],
    ['a step back in time', changed(5, 0, '0.01'), 29, /1 row was left out: the time steps back/],
    [
      'a gap',
      file([header, ...rows.filter((_, at) => at < 10 || at > 15)]),
      24,
      /1 gap in the samples; the longest lasts 0.07 s at 0.09 s/,
    ],
  ])('%s', (_, text, count, remark) => {
    const { recording, remarks } = readRecordingCsv(text);
    expect(recording.time).toHaveLength(count);
    expect(remarks.join(' ')).toMatch(remark);
  });

  test('unknown columns are kept as custom channels, and so is a known one in a strange unit', () => {
    const { recording, remarks } = readRecordingCsv(
      file([[...header, 'wheel mood [points]', 'boost [furlong]'], ...rows.map((cells) => [...cells, '7', '8'])]),
    );
    expect(recording.channels.map(({ name, unit }) => [name, unit])).toEqual([
      ['rollerSpeed', 'rad/s'],
      ['engineSpeed', 'rpm'],
      ['wheel mood', 'points'],
      ['boost', 'furlong'],
    ]);
    expect(remarks).toHaveLength(2);
  });
});

describe('what is refused', () => {
  test.each([
    ['empty', '', /empty/],
    ['only blanks', ' \n\n', /empty/],
    ['no header', file(rows), /header/],
    ['no rows', file([header]), /no rows/],
    ['no time', file([['moment', ...header.slice(1)], ...rows]), /"time"/],
    ['no speed', file([['time [s]', 'lambda [–]'], ...rows]), /no speed/],
    [
      'an unknown unit on a needed channel',
      file([['time [s]', 'rollerSpeed [furlong]'], ...rows]),
      /"furlong".*rollerSpeed/,
    ],
    ['time not advancing', file([header, ...rows.map(([, ...rest]) => ['0.5', ...rest])]), /Time does not advance/],
    [
      'mostly unreadable',
      file([header, ...rows.map(([at, , rpm], index) => [at!, index % 3 ? 'x' : '60', rpm!])]),
      /no readable number/,
    ],
    ['binary', 'PK\u0003\u0004\u0000\u0000\u0001garbage', /not text/],
  ])('%s', (_, text, sentence) => {
    expect(() => readRecordingCsv(text)).toThrow(Refusal);
    expect(() => readRecordingCsv(text)).toThrow(sentence);
  });

  test('nothing at all makes it throw anything but a Refusal', () => {
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string({ unit: 'binary' }),
          fc.string().map((noise) => header.join() + '\n' + noise),
        ),
        (text) => {
          try {
            readRecordingCsv(text);
          } catch (error) {
            expect(error).toBeInstanceOf(Refusal);
          }
        },
      ),
    );
  });
});

test('what is written is read back to the same numbers, air included', () => {
  const air = { temperatureC: 21.37, pressureHpa: 1009.25, relativeHumidityPct: 46.1 };
  const run = generatedRun({ speedNoise: 0.01 });
  run.channels.push({
    name: 'intakeTemperature',
    unit: '°C',
    values: run.time.map((_, index) => (index % 10 ? NaN : index / 7)),
  });
  const { recording, remarks } = readRecordingCsv(writeRecordingCsv(withAirColumns(run, air)));
  expect(remarks).toEqual([]);
  expect(recording.time).toEqual(run.time);
  expect(recording.channels.slice(0, 3)).toEqual(run.channels);
  expect(airFromColumns(recording)).toEqual(air);
  expect(airFromColumns(run)).toBeUndefined();
});

/** A few rows under a third heading. */
const under = (heading: string, speed = 'rollerSpeed [rad/s]') =>
  readRecordingCsv(
    `time [s],${speed},${heading}\n${Array.from({ length: 40 }, (_, row) => `${row / 100},${60 + row},1`).join('\n')}\n`,
  );

test('a heading of 160,000 brackets is read in one pass', () => {
  const { remarks } = under(`${'['.repeat(160_000)}rad/s]`);
  expect(remarks.some((remark) => remark.includes('is not a channel that Suvok knows'))).toBe(false);
  expect(under(`${'['.repeat(160_000)}`).remarks.some((remark) => remark.includes('not a channel'))).toBe(true);
});

test('a unit stands in the last brackets; units named like parts of the language are strangers', () => {
  expect(under('boost (kPa)').recording.channels[1]).toMatchObject({ name: 'boost', unit: 'kPa' });
  expect(under('gas (left) [degC]').recording.channels[1]).toMatchObject({ name: 'gas (left)', unit: 'degC' });
  expect(under('boost [constructor]').recording.channels[1]).toMatchObject({ name: 'boost', unit: 'constructor' });
  expect(() => under('boost [kPa]', 'rollerSpeed [__proto__]')).toThrow(/unit "__proto__"/);
});

test('quotes around cells change nothing, whatever the file’s delimiter and line ends are', () => {
  const cell = fc.oneof(
    fc.double({ min: -1e6, max: 1e6, noNaN: true }).map(String),
    fc.constantFrom('', ' ', 'x', ' 12 ', '1e3', '-.5', '0x10', '--'),
  );
  fc.assert(
    fc.property(
      fc.array(fc.tuple(cell, cell), { minLength: 30, maxLength: 60 }),
      fc.constantFrom(',', ';', '\t'),
      fc.constantFrom('\n', '\r\n', '\r'),
      fc.boolean(),
      (cells, delimiter, end, blankLines) => {
        const rows = cells.map(([a, b], index) => [String(index / 100), a, b]);
        const file = (write: (text: string) => string) =>
          [['time [s]', 'rollerSpeed [rad/s]', 'boost [kPa]'], ...rows]
            .map((row) => row.map(write).join(delimiter))
            .join(end + (blankLines ? ` ${end}` : ''));
        const read = (text: string) => {
          try {
            return readRecordingCsv(text);
          } catch (error) {
            return (error as Error).message;
          }
        };
        expect(read(file((text) => text))).toEqual(read(file((text) => `"${text}"`)));
      },
    ),
  );
});
