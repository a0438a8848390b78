import Papa from 'papaparse';
import { Refusal } from '../refusal.ts';

export interface CsvTable {
  header: string[];
  rows: string[][];
  delimiter: string;
}

/**
 * Cuts a file's text into cells: finds the delimiter, drops a BOM, blanks
 * around cells and empty lines.
 *
 * @throws Refusal when the text is empty, not text at all, or has no header line
 */
export function csvTable(text: string): CsvTable {
  const clean = text.replace(/^\uFEFF/, '');
  const headLine = clean.split(/\r\n|\n|\r/).find((line) => line.trim() !== '');
  if (headLine === undefined) throw new Refusal('The file is empty.');
  if (looksBinary(clean)) {
    throw new Refusal(
      'The file is not text. Export the recording as CSV (comma, semicolon or tab separated) and try again.',
    );
  }
  const delimiter = delimiterOf(headLine);
  const parsed = Papa.parse<string[]>(clean, { delimiter, skipEmptyLines: 'greedy' });
  const [header, ...rows] = parsed.data.map((row) => row.map((cell) => cell.trim()));
  if (!header || header.every((cell) => cell === '' || isNumber(cell))) {
    throw new Refusal(
      'The file has no header line. The first line must name the columns with their units, such as "time [s],rollerSpeed [rad/s]".',
    );
  }
  return { header, rows, delimiter };
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

/** The number in a cell, with a decimal point or a decimal comma; NaN when it holds none. */
export function cellNumber(cell: string): number {
  if (cell === '') return NaN;
  const text = /^[+-]?\d*,\d+(?:[eE][+-]?\d+)?$/.test(cell) ? cell.replace(',', '.') : cell;
  return /^[+-]?(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d+)?$/.test(text) ? Number(text) : NaN;
}
