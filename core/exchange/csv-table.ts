import Papa from 'papaparse';
import { Refusal } from '../refusal.ts';
import { plainHeading } from './safe-heading.ts';

/**
 * Cuts a file's text into cells, row by row, so that a long file is never
 * there twice: finds the delimiter, drops a BOM, blanks around cells and empty lines.
 *
 * @param columns is told the header and returns what takes each row
 * @returns how many rows came under the header
 * @throws Refusal when the text is empty, not text at all, or has no header line
 */
export function eachCsvRow(text: string, columns: (header: string[]) => (row: readonly string[]) => void): number {
  const clean = text.startsWith('\uFEFF') ? text.slice(1) : text;
  const headLine = firstLine(clean);
  if (headLine === undefined) throw new Refusal('The file is empty.');
  if (looksBinary(clean)) {
    throw new Refusal(
      'The file is not text. Export the recording as CSV (comma, semicolon or tab separated) and try again.',
    );
  }
  const delimiter = delimiterOf(headLine);
  let take: ((row: readonly string[]) => void) | undefined;
  let rows = 0;
  const step = (cells: string[]) => {
    if (take) {
      rows++;
      return take(cells);
    }
    const header = cells.map((cell) => plainHeading(cell.trim()));
    if (header.every((cell) => cell === '' || isNumber(cell))) {
      throw new Refusal(
        'The file has no header line. The first line must name the columns with their units, such as "time [s],rollerSpeed [rad/s]".',
      );
    }
    take = columns(header);
  };
  // Without quotes a line is its cells; with them the library knows the rules.
  if (clean.includes('"'))
    Papa.parse<string[]>(clean, { delimiter, skipEmptyLines: 'greedy', step: ({ data }) => step(data) }); // prettier-ignore
  else
    eachPlainLine(clean, (line) => {
      const cells = line.split(delimiter);
      if (holdsSomething.test(line) || cells.join('').trim() !== '') step(cells);
    });
  return rows;
}

/** More than blanks and delimiters of any kind: most lines need no closer look. */
const holdsSomething = /[^\s,;]/;

/** The lines of a text, whatever ends them. */
function eachPlainLine(text: string, take: (line: string) => void): void {
  const end = text.includes('\n') ? '\n' : '\r';
  for (let from = 0; from < text.length;) {
    const found = text.indexOf(end, from);
    const to = found < 0 ? text.length : found;
    const line = text.slice(from, text[to - 1] === '\r' ? to - 1 : to);
    take(line);
    from = to + 1;
  }
}

/** The first line that holds anything; the rest of a long file is not looked at. */
function firstLine(text: string): string | undefined {
  const from = text.search(/[^\s]/);
  if (from < 0) return undefined;
  const end = text.slice(from).search(/[\r\n]/);
  const begin = Math.max(text.lastIndexOf('\n', from), text.lastIndexOf('\r', from)) + 1;
  return end < 0 ? text.slice(begin) : text.slice(begin, from + end);
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

const plainNumber = /^[+-]?(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d+)?$/;
const commaNumber = /^[+-]?\d*,\d+(?:[eE][+-]?\d+)?$/;

/** The number in a cell, blanks around it left out, with a decimal point or a decimal comma; NaN when it holds none. */
export function cellNumber(cell: string): number {
  const first = cell.charCodeAt(0);
  // Most cells are plain digits: those are neither trimmed nor looked at twice.
  const text = first > 32 && cell.charCodeAt(cell.length - 1) > 32 ? cell : cell.trim();
  if (plainNumber.test(text)) return Number(text);
  return commaNumber.test(text) ? Number(text.replace(',', '.')) : NaN;
}
