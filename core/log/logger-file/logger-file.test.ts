import { describe, expect, test } from '@jest/globals';
import { decodedText, readLogTable } from '../../exchange/loggers/log-table.ts';
import { chance, normal } from '../../testing/chance.ts';
import { guessedMapping, headingsKey, recordingBy } from '../../exchange/loggers/log-mapping.ts';
import { pullsIn, runsInLog, type SoughtRun } from './pulls-in-log.ts';

const rows = (separator: string, comma: boolean, count = 40) =>
  Array.from({ length: count }, (_, at) =>
    [at / 10, 2000 + 40 * at, 12.5 + (at % 3) / 10]
      .map((value) => String(Math.round(100 * value) / 100))
      .map((text) => (comma ? text.replace('.', ',') : text))
      .join(separator),
  );

describe('a logger’s table, however it is written', () => {
  test.each<[string, string]>([
    ['commas', ['Time (s),Engine Speed (rpm),AFR', ...rows(',', false)].join('\n')],
    ['semicolons and decimal commas', ['Time [s];RPM [rpm];AFR', ...rows(';', true)].join('\r\n')],
    [
      'tabs, with lines before the headings',
      ['Log of the day', 'made 2026-03-02', '', 'Time\tRPM\tAFR', ...rows('\t', false)].join('\n'),
    ],
    ['a row of units beneath', ['Time;RPM;AFR', 's;rpm;', ...rows(';', false)].join('\n')],
    [
      'comments, and headings that come again',
      [
        '# a comment',
        'Time,RPM,AFR',
        ...rows(',', false, 25),
        'Time,RPM,AFR',
        '// more',
        ...rows(',', false).slice(25),
      ].join('\n'),
    ],
    [
      'quotes and a blank column',
      ['"Time","","RPM","AFR"', ...rows(',', false).map((row) => row.replace(',', ',,'))].join('\n'),
    ],
    ['bars', ['Time|RPM|AFR', ...rows('|', false)].join('\n')],
  ])('%s', (_, text) => {
    const table = readLogTable(text);
    expect(table.rows).toBe(40);
    const mapping = guessedMapping(table);
    expect(mapping.columns.map(({ channel }) => channel)).toEqual(['time', 'engineSpeed', 'lambda']);
    expect(mapping.ratioAtLambda1).toBe(14.7);
    const { time, channels } = recordingBy(mapping, table);
    expect(time[39]).toBeCloseTo(3.9, 9);
    expect(channels[0]!.values[39]).toBeCloseTo(3560, 6);
    expect(channels[1]!.values[0]).toBeCloseTo(12.5 / 14.7, 6);
  });

  test('UTF-16 with and without its mark, Windows-1252 and UTF-8 give the same words', () => {
    const text = 'Zeit [s];Öltemperatur [°C]\n0;90';
    const wide = (mark: boolean, swap: boolean) => {
      const bytes = new Uint8Array(2 * text.length + (mark ? 2 : 0));
      const put = (at: number, code: number) => bytes.set(swap ? [code >> 8, code & 255] : [code & 255, code >> 8], at);
      if (mark) put(0, 0xfeff);
      [...text].forEach((letter, at) => put(2 * at + (mark ? 2 : 0), letter.charCodeAt(0)));
      return bytes;
    };
    const latin = Uint8Array.from(text, (letter) => letter.charCodeAt(0));
    for (const bytes of [
      wide(true, false),
      wide(true, true),
      wide(false, false),
      wide(false, true),
      latin,
      new TextEncoder().encode(text),
    ])
      expect(decodedText(bytes).replace('\uFEFF', '')).toBe(text);
  });

  test.each([
    ['no table\nno table at all', /No table was found|No row of headings/],
    ['Time,RPM\n0,1\n1,2', /Only 2 rows/],
    [rows(',', false).join('\n'), /No row of headings/],
    ['a\0b', /not text/],
  ])('%j is refused with a sentence', (text, sentence) => {
    expect(() => readLogTable(text)).toThrow(sentence);
  });
});

describe('a mapping', () => {
  const table = readLogTable(
    ['Elapsed [ms],Revs,Oil P [psi],Lamp', ...rows(',', false).map((row) => `${row},1`)].join('\n'),
  );

  test('knows its source by the headings, and converts what it is told', () => {
    const guess = guessedMapping(table);
    const mapping = {
      ...guess,
      columns: guess.columns.map((column) =>
        column.heading === 'Oil P' ? { ...column, channel: 'oilPressure' } : column,
      ),
    };
    expect(headingsKey(mapping.columns)).toBe(headingsKey(table.columns));
    expect(headingsKey(mapping.columns)).not.toBe(
      headingsKey(readLogTable(['Time,Revs,x', ...rows(',', false)].join('\n')).columns),
    );
    expect(headingsKey(mapping.columns)).toBe('elapsed|lamp|oil p|revs');
    const { time, channels } = recordingBy(mapping, table);
    // Milliseconds, and pounds.
    expect(time[10]).toBeCloseTo(0.001, 9);
    expect(channels.find(({ name }) => name === 'oilPressure')!.values[0]).toBeCloseTo(12.5 * 6.894757, 3);
  });

  test.each([
    [{ Elapsed: null }, /which column is the time/],
    [{ Revs: null }, /which column is the engine speed/],
    [{ Lamp: 'engineSpeed' }, /same channel \(engineSpeed\)/],
    [{ Lamp: 'time', Elapsed: null }, /does not advance/],
  ])('%j is refused with what is missing', (over: Record<string, string | null>, sentence) => {
    const guess = guessedMapping(table);
    const columns = guess.columns.map((column) =>
      column.heading in over
        ? { ...column, unit: column.heading === 'Lamp' ? '' : column.unit, channel: over[column.heading]! }
        : column,
    );
    expect(() => recordingBy({ ...guess, columns }, table)).toThrow(sentence);
  });
});

describe('several pulls in one file', () => {
  const scatter = normal(chance(5));
  const rpmAt = (sinceS: number, lastsS: number) =>
    sinceS < 0
      ? 2000
      : sinceS < lastsS
        ? 2000 + 4500 * (sinceS / lastsS) ** 0.9
        : Math.max(1000, 6500 - 500 * (sinceS - lastsS));
  const run = (id: number, startedMs: number | null, lastsS: number): SoughtRun => {
    const time = Float64Array.from({ length: 3600 }, (_, at) => at / 200);
    return {
      id,
      startedMs,
      trace: { time, rpm: time.map((at) => (at < 0.2 ? NaN : rpmAt(at - 3, lastsS) + 5 * scatter())) },
    };
  };
  /** Pulls that open at these times of the log, s. */
  const log = (opened: readonly (readonly [number, number])[]) => {
    const time = Float64Array.from({ length: 20 * 400 }, (_, at) => at / 20);
    return {
      time,
      rpm: time.map(
        (at) =>
          Math.max(
            1000,
            ...opened.map(([from, lasts]) => (at > from - 15 && at < from + 30 ? rpmAt(at - from, lasts) : 1000)),
          ) +
          8 * scatter(),
      ),
    };
  };
  const noon = Date.UTC(2026, 2, 2, 12);

  test('each run finds its own pull by the clock, though all pulls are alike', () => {
    const file = log([
      [40, 9],
      [140, 9],
      [260, 9],
    ]);
    expect(pullsIn(file)).toHaveLength(3);
    // The second pull of the log is nobody's, and the third run is not in it.
    const found = runsInLog([run(1, noon, 9), run(2, noon + 220_000, 9), run(3, noon + 900_000, 9)], file);
    expect(found.map(({ refused }) => refused)).toEqual([
      undefined,
      undefined,
      'By the clock of the other runs it is not in this file.',
    ]);
    expect(found[0]!.fit!.shiftS).toBeCloseTo(3 - 40, 1);
    expect(found[1]!.fit!.shiftS).toBeCloseTo(3 - 260, 1);
    expect(found[0]).toMatchObject({ fromS: expect.closeTo(31, 0) });
  });

  test('runs at even distances that fit in two ways are not guessed', () => {
    const even = [1, 2, 3].map((id) => run(id, noon + id * 100_000, 9));
    expect(
      runsInLog(
        even,
        log([
          [40, 9],
          [140, 9],
        ]),
      ).map(({ fit }) => fit),
    ).toEqual([undefined, undefined, undefined]);
  });

  test('without a clock a pull of its own shape is told, and one that fits twice is not guessed', () => {
    const file = log([
      [40, 9],
      [140, 7],
    ]);
    expect(runsInLog([run(1, null, 7)], file)[0]!.refused).toBeUndefined();
    expect(runsInLog([run(1, null, 7)], file)[0]!.fit!.shiftS).toBeCloseTo(3 - 140, 1);
    expect(
      runsInLog(
        [run(1, null, 9)],
        log([
          [40, 9],
          [140, 9],
        ]),
      )[0]!.refused,
    ).toMatch(/More than one pull/);
  });

  test('one pull is one run’s: two that fit it alike are both left to a person', () => {
    const file = log([[40, 9]]);
    const alike = runsInLog([run(1, null, 9), run(2, null, 9)], file);
    expect(alike.map(({ refused }) => refused)).toEqual([
      expect.stringMatching(/^More than one run fits/),
      expect.stringMatching(/^More than one run fits/),
    ]);
    const [own, other] = runsInLog([run(1, null, 9), run(2, null, 7.5)], file);
    expect(own!.fit).toBeDefined();
    expect(other!.fit).toBeUndefined();
  });

  test('another car’s log fits nothing, and one without a pull says so', () => {
    expect(runsInLog([run(1, noon, 9)], log([[40, 4]]))[0]!.refused).toMatch(/does not fit/);
    expect(runsInLog([run(1, noon, 9)], log([]))[0]!.refused).toMatch(/no pull/);
  });
});
