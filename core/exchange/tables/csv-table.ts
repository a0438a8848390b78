import Papa from 'papaparse';
import { Refusal } from '../../refusal.ts';
import { cellNumber, CutCells, LineCells, type Cells } from './cells.ts';
import { plainHeading } from './safe-heading.ts';

/** Takes a row's cells. */
export type TakeRow = (cells: Cells) => void;

interface Form {
  delimiter: string;
  /** What ends a line; a carriage return before a line feed belongs to it. */
  end: '\n' | '\r';
}

/** So much of a file is looked at before its first row is taken, characters. */
const lookedAt = 4096;

/**
 * Cuts a file's text into cells, row by row, as it comes in pieces, so that a
 * long file is never there whole: finds the delimiter, drops a BOM, blanks
 * around cells and empty lines.
 */
export class CsvRows {
  /** How many came under the header. */
  rows = 0;
  /** What has not been cut yet: the file's beginning, or its last line. */
  private rest = '';
  /**
   * Text is not looked at again before it is so long: while it holds no whole row, what grows would be read again and
   * again.
   */
  private lookAt = lookedAt;
  private form: Form | undefined;
  private quoted = false;
  private takeRow: TakeRow | undefined;

  /** @param columns is told the header and returns what takes each row */
  constructor(private readonly columns: (header: string[]) => TakeRow) {}

  /**
   * Takes the next piece of the text, cut anywhere.
   * @throws Refusal when it is not text at all, or has no header line
   */
  push(text: string): void {
    this.rest += text;
    if (this.rest.length < this.lookAt) return;
    const before = this.rest.length;
    this.form ??= this.begin(false);
    if (this.form) this.cut(this.form, false);
    this.lookAt = this.form && this.rest.length < before ? 0 : 2 * before;
  }

  /** The text is over. @throws Refusal, as `push` does, and when it was empty */
  end(): void {
    this.form ??= this.begin(true);
    if (!this.form) throw new Refusal('The file is empty.');
    this.cut(this.form, true);
  }

  /** Looks at the beginning. @returns how rows are cut; undefined while there is not enough of it */
  private begin(whole: boolean): Form | undefined {
    // A carriage return at the very end may be half of a line's end.
    if (!whole && this.rest.endsWith('\r')) return undefined;
    if (this.rest.startsWith('\uFEFF')) this.rest = this.rest.slice(1);
    if (looksBinary(this.rest)) {
      throw new Refusal(
        'The file is not text. Export the recording as CSV (comma, semicolon or tab separated) and try again.',
      );
    }
    const headLine = firstLine(this.rest, whole);
    if (headLine === undefined) return undefined;
    return { delimiter: delimiterOf(headLine), end: this.rest.includes('\n') ? '\n' : '\r' };
  }

  private cut(form: Form, whole: boolean): void {
    this.quoted ||= this.rest.includes('"');
    if (this.quoted) this.cutQuoted(form, whole);
    else this.cutPlain(form, whole);
  }

  /** Without quotes a line is its cells. */
  private cutPlain({ delimiter, end }: Form, whole: boolean): void {
    const { rest } = this;
    const cells = new LineCells(delimiter);
    let from = 0;
    while (from < rest.length) {
      const found = rest.indexOf(end, from);
      if (found < 0 && !whole) break;
      const to = found < 0 ? rest.length : found;
      cells.cut(rest, from, rest[to - 1] === '\r' ? to - 1 : to);
      if (!cells.isBlank) this.take(cells);
      from = to + 1;
    }
    this.rest = rest.slice(from);
  }

  /**
   * Rows with quotes are left to the library, which knows the rules. It is given whole rows: those after which all
   * quotes are closed.
   */
  private cutQuoted({ delimiter, end }: Form, whole: boolean): void {
    const { rest } = this;
    const to = whole ? rest.length : endOfRows(rest, end);
    const step = ({ data }: { data: string[] }) => this.take(new CutCells(data));
    if (to > 0) Papa.parse<string[]>(rest.slice(0, to), { delimiter, skipEmptyLines: 'greedy', step });
    this.rest = rest.slice(to);
  }

  private take(cells: Cells): void {
    if (this.takeRow) {
      this.rows++;
      return this.takeRow(cells);
    }
    const header = Array.from({ length: cells.count }, (_, index) => plainHeading(cells.text(index).trim()));
    if (header.every((cell) => cell === '' || isNumber(cell))) {
      throw new Refusal(
        'The file has no header line. The first line must name the columns with their units, such as "time [s],rollerSpeed [rad/s]".',
      );
    }
    this.takeRow = this.columns(header);
  }
}

/** Behind the last line end that stands outside of quotes; 0 where there is none. */
function endOfRows(text: string, end: string): number {
  let to = 0;
  let outside = true;
  for (let at = 0; at < text.length; at++) {
    const sign = text[at];
    if (sign === '"') outside = !outside;
    else if (sign === end && outside) to = at + 1;
  }
  return to;
}

/** The first line that holds anything. @param whole nothing comes after this text; otherwise a line without an end is none yet */
function firstLine(text: string, whole: boolean): string | undefined {
  const from = text.search(/[^\s]/);
  if (from < 0) return undefined;
  const end = text.slice(from).search(/[\r\n]/);
  const begin = Math.max(text.lastIndexOf('\n', from), text.lastIndexOf('\r', from)) + 1;
  if (end < 0) return whole ? text.slice(begin) : undefined;
  return text.slice(begin, from + end);
}

function delimiterOf(headLine: string): string {
  const outside = headLine.replace(/"[^"]*"/g, '');
  if (outside.includes('\t')) return '\t';
  return outside.includes(';') ? ';' : ',';
}

function looksBinary(text: string): boolean {
  const sample = text.slice(0, 4096);
  const odd = sample.match(/[\u0000-\u0008\u000E-\u001F\uFFFD]/g)?.length ?? 0;
  return sample.includes('\u0000') || odd > sample.length / 50;
}

function isNumber(cell: string): boolean {
  return !Number.isNaN(cellNumber(cell)) && cell !== '';
}
