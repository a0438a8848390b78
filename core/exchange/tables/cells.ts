import { sampleAt } from '../../numerics/sample-at.ts';
/** A row's cells, as the reader of a table sees them: it takes the number or the text of those that it needs. */
export interface Cells {
  readonly count: number;
  /** What stands in a cell; empty beyond the last one. */
  text(index: number): string;
  /** The number in a cell, as `cellNumber` reads it; NaN when it holds none. */
  number(index: number): number;
}

const plainNumber = /^[+-]?(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d+)?$/;
const commaNumber = /^[+-]?\d*,\d+(?:[eE][+-]?\d+)?$/;

/** The number in a cell, blanks around it left out, with a decimal point or a decimal comma; NaN when it holds none. */
export function cellNumber(cell: string): number {
  const text = cell.trim();
  if (plainNumber.test(text)) return Number(text);
  return commaNumber.test(text) ? Number(text.replace(',', '.')) : NaN;
}

/** Cells that were cut already. */
export class CutCells implements Cells {
  constructor(private readonly cells: readonly string[]) {}

  get count(): number {
    return this.cells.length;
  }

  text(index: number): string {
    return this.cells[index] ?? '';
  }

  number(index: number): number {
    return cellNumber(this.text(index));
  }
}

const [zero, nine, point, comma, plus, minus] = [48, 57, 46, 44, 43, 45];
/** A whole number of so many digits is a double exactly. */
const exactDigits = 15;
/** The powers of ten that are doubles exactly: a quotient by one of them is rounded once, as text would be. */
const exactPowers = Float64Array.from({ length: 23 }, (_, power) => Number(`1e${power}`));

/**
 * The cells of one line without quotes, found by a look at its characters. A
 * number is read where it stands: most of a recording is digits, and a text
 * of its own for each of them takes longer than all the rest.
 */
export class LineCells implements Cells {
  count = 0;
  /** Neither blanks nor delimiters alone. */
  isBlank = true;
  private line = '';
  /** Where the line begins in its text. */
  private from = 0;
  /** The line's characters: an array is looked at faster than a text. */
  private codes = new Uint16Array(512);
  /** Where each cell begins, and one beyond the last: a delimiter stands before each but the first. */
  private begins = new Int32Array(64);

  constructor(private readonly delimiter: string) {}

  /** Takes the next line: what stands in a text from one place to before another. */
  cut(text: string, from: number, to: number): void {
    const length = to - from;
    if (length > this.codes.length) this.codes = new Uint16Array(2 * length);
    if (length + 2 > this.begins.length) this.begins = new Int32Array(2 * length + 2);
    const { codes, begins } = this;
    const delimiter = this.delimiter.charCodeAt(0);
    let count = 0;
    let isBlank = true;
    begins[count++] = 0;
    for (let at = 0; at < length; at++) {
      const code = text.charCodeAt(from + at);
      codes[at] = code;
      if (code === delimiter) begins[count++] = at + 1;
      else if (code > 32 && (code < 128 || text.charAt(from + at).trim() !== '')) isBlank = false;
    }
    begins[count] = length + 1;
    this.line = text;
    this.from = from;
    this.count = count;
    this.isBlank = isBlank;
  }

  text(index: number): string {
    if (index >= this.count) return '';
    return this.line.slice(this.from + this.begins[index]!, this.from + this.begins[index + 1]! - 1);
  }

  number(index: number): number {
    if (index >= this.count) return NaN;
    const { codes } = this;
    const to = this.begins[index + 1]! - 1;
    let at = this.begins[index]!;
    const sign = codes[at];
    if (at < to && (sign === minus || sign === plus)) at++;
    let whole = 0;
    let signs = 0;
    let digits = 0;
    let decimals = -1;
    for (; at < to; at++) {
      const code = codes[at]!;
      if (code >= zero && code <= nine) {
        whole = 10 * whole + (code - zero);
        signs++;
        if (whole > 0) digits++;
        if (decimals >= 0) decimals++;
      } else if ((code === point || code === comma) && decimals < 0) decimals = 0;
      else return cellNumber(this.text(index));
    }
    // Nothing behind the mark, too many digits, or no digit at all: the usual way knows what that is.
    if (signs === 0 || digits > exactDigits || decimals === 0 || decimals >= exactPowers.length)
      return cellNumber(this.text(index));
    const value = decimals > 0 ? whole / sampleAt(exactPowers, decimals) : whole;
    return sign === minus ? -value : value;
  }
}
