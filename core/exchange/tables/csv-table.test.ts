import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { Refusal } from '../../refusal.ts';
import { CsvRows } from './csv-table.ts';

/** All that a text holds, or why it is refused. */
function tableOf(pieces: readonly string[]): { header: string[]; rows: string[][] } | string {
  let header: string[] = [];
  const rows: string[][] = [];
  const table = new CsvRows((names) => {
    header = names;
    return (cells) => rows.push(Array.from({ length: cells.count }, (_, index) => cells.text(index)));
  });
  try {
    for (const piece of pieces) table.push(piece);
    table.end();
  } catch (error) {
    if (error instanceof Refusal) return error.message;
    throw error;
  }
  expect(table.rows).toBe(rows.length);
  return { header, rows };
}

const cell = fc.oneof(
  { weight: 5, arbitrary: fc.double({ noNaN: true }).map(String) },
  fc.constantFrom('', ' ', 'abc', '1,5', 'NaN'),
);
/** Quoted as the format has it: delimiters and line ends in it, and quotes doubled. */
const quoted = fc.stringMatching(/^[ a-z0-9,;\n]{0,12}$/).map((text) => `"${text.replace('a', '""')}"`);
const drawn = fc
  .record({
    rows: fc.array(fc.array(fc.oneof({ weight: 9, arbitrary: cell }, quoted), { minLength: 1, maxLength: 4 }), {
      minLength: 1,
      maxLength: 300,
    }),
    delimiter: fc.constantFrom(',', ';', '\t'),
    end: fc.constantFrom('\n', '\r\n', '\r'),
    head: fc.constantFrom('', '\uFEFF', '\n\n'),
    last: fc.boolean(),
    quotes: fc.boolean(),
  })
  .map(({ rows, delimiter, end, head, last, quotes }) => {
    const of = (text: string) => (quotes ? text.replaceAll('\n', end) : text.replaceAll(/["\n]/g, ''));
    const lines = [['time [s]', 'rollerSpeed [rad/s]'], ...rows].map((cells) =>
      cells
        .map(of)
        .map((text) => (quotes || delimiter === ';' || delimiter === '\t' ? text : text.replaceAll(',', '.')))
        .join(delimiter),
    );
    return head + lines.join(end) + (last ? end : '');
  });

/** A text cut at drawn places. */
const cut = (text: string, places: readonly number[]) => {
  const at = [0, ...places.map((place) => Math.floor(place * text.length)).sort((a, b) => a - b), text.length];
  return at.slice(1).map((to, index) => text.slice(at[index], to));
};

describe('a table that comes in pieces', () => {
  test('holds what it holds whole, wherever it is cut', () => {
    fc.assert(
      fc.property(drawn, fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { maxLength: 30 }), (text, places) => {
        expect(tableOf(cut(text, places))).toEqual(tableOf([text]));
      }),
      { numRuns: 300 },
    );
  });

  test('is refused with the same sentence', () => {
    for (const text of ['', ' \n\n ', '1,2\n3,4\n', `\u0000\u0001${'x'.repeat(9000)}`, '\uFEFF'])
      expect(tableOf([...text])).toBe(tableOf([text]));
  });

  test('is not kept: a long text is cut as it comes', () => {
    let most = 0;
    let rows = 0;
    const table = new CsvRows(() => (cells) => {
      rows++;
      most = Math.max(most, cells.count);
    });
    table.push('time [s],a\n');
    const piece = '1.25,3\n'.repeat(2000);
    for (let at = 0; at < 50; at++) {
      table.push(piece.slice(0, 5001));
      table.push(piece.slice(5001));
      expect(JSON.stringify(table).length).toBeLessThan(1000);
    }
    table.end();
    expect([rows, most]).toEqual([100_000, 2]);
  });

  test.each([
    ['a quote that is never closed', 'time [s],a\n"1,2\n'],
    ['a line that never ends', 'time [s],a\n1,'],
    ['a heading that never ends', 'time [s]'],
    ['nothing but empty lines', '\n'],
  ])('is read in time that grows with its length: %s', (_, head) => {
    const table = new CsvRows(() => () => undefined);
    table.push(head);
    // Read from the beginning at every piece, this would take minutes.
    const piece = head === '\n' ? '\n'.repeat(500) : '1'.repeat(500) + (head.includes('"') ? '\n' : '');
    for (let at = 0; at < 20_000; at++) table.push(piece);
    const end = () => table.end();
    if (head === '\n') expect(end).toThrow(/empty/);
    else end();
    expect(table.rows).toBe(head.endsWith('\n') && head !== '\n' ? 1 : head.endsWith(',') ? 1 : 0);
  });
});
