import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { cellNumber, CutCells, LineCells } from './cells.ts';

/** Numbers as programs write them, and what stands in cells beside them. */
const written = fc.oneof(
  fc.double().map(String),
  fc.double({ min: -1e6, max: 1e6, noNaN: true }).chain((value) => fc.nat({ max: 12 }).map((to) => value.toFixed(to))),
  fc.double({ noNaN: true, noDefaultInfinity: true }).map((value) => value.toExponential(6)),
  fc.stringMatching(/^[+-]?\d{0,24}[.,]?\d{0,24}$/),
  fc.stringMatching(/^[ +\-.,\deExX]{0,8}$/),
  fc.constantFrom('', ' ', '-', '+', '.', ',', '0', '-0', '5.', '.5', ' 7 ', '1_000', '٣', '\u00a08', 'n/a', '0x10'),
);

test('a number is what the language reads in the same text, to the last bit, wherever it stands in its line', () => {
  fc.assert(
    fc.property(
      fc.array(written, { minLength: 1, maxLength: 80 }),
      fc.constantFrom(';', '\t', ','),
      fc.nat({ max: 5 }),
      (texts, delimiter, before) => {
        const cells = texts.map((text) => text.replaceAll(delimiter, ''));
        const line = 'x'.repeat(before) + cells.join(delimiter);
        const found = new LineCells(delimiter);
        found.cut(`${line}\nmore`, before, line.length);
        const cut = new CutCells(cells);
        expect(found.count).toBe(cut.count);
        for (let index = 0; index < cells.length + 1; index++) {
          expect(found.text(index)).toBe(cut.text(index));
          expect([cut.text(index), found.number(index)]).toEqual([cut.text(index), cellNumber(cut.text(index))]);
        }
        expect(found.isBlank).toBe(cells.join('').trim() === '');
      },
    ),
    { numRuns: 2000 },
  );
});

test('a plain number is read as the language reads it', () => {
  fc.assert(
    fc.property(fc.double({ noNaN: true, noDefaultInfinity: true }), (value) => {
      const text = Object.is(value, -0) ? '-0' : String(value);
      expect(Object.is(cellNumber(text), value)).toBe(true);
      const found = new LineCells(',');
      found.cut(text, 0, text.length);
      expect(Object.is(found.number(0), value)).toBe(true);
    }),
    { numRuns: 2000 },
  );
});
