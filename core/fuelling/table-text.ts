import { Refusal } from '../refusal.ts';
import { cellCount, mustBeAxis, type FuellingAxes } from './axes.ts';

/** A table as a spreadsheet has it: the across axis in the first line, the down axis in the first column. */
export interface TableText {
  across: number[];
  /** null for a single line of breakpoints or of values. */
  down: number[] | null;
  /** In rows; NaN for an empty cell; null where only axes were given. */
  values: number[] | null;
}

/** A table as text that a spreadsheet takes. @param values in rows; NaN is left empty @param digits after the point */
export function writeTable(
  { across, down }: FuellingAxes,
  values: ArrayLike<number>,
  digits: number,
  separator = '\t',
): string {
  const columns = across.breakpoints.length;
  const cell = (value: number) => (Number.isNaN(value) ? '' : value.toFixed(digits));
  const head = [...(down ? [''] : []), ...across.breakpoints.map(String)];
  const rows = (down?.breakpoints ?? [undefined]).map((load, row) => [
    ...(load === undefined ? [] : [String(load)]),
    ...across.breakpoints.map((_, column) => cell(values[row * columns + column]!)),
  ]);
  return `${[head, ...rows].map((row) => row.join(separator)).join('\n')}\n`;
}

/**
 * Reads a table, or an axis alone, as it is copied out of a spreadsheet or a
 * controller's program: cells apart by tabs, semicolons, commas or blanks; a
 * comma is a decimal point where cells are apart by tabs or semicolons. The first
 * line is the across axis; if all others have one cell more than it, or as many
 * with an empty corner, their first is the down axis. One column is an axis too.
 *
 * @throws Refusal with the line that cannot be read
 */
export function readTable(text: string): TableText {
  const lines = text.split(/\r?\n/).filter((line) => line.trim() !== '');
  if (lines.length === 0) throw new Refusal('There is nothing to read: paste the breakpoints, or a table with them.');
  const separator = [/\t/, /;/].find((mark) => lines.some((line) => mark.test(line)));
  // One number a line: a comma in it is a decimal point.
  const column = !separator && lines.length > 1 && lines.every((line) => /^\s*-?\d+(?:[.,]\d+)?\s*$/.test(line));
  const grid = lines.map((line) => (column ? [line.trim().replace(',', '.')] : cellsOf(line, separator)));
  if (grid.every((row) => row.length === 1))
    return { across: axisOf(grid.map((row, at) => numberOf(row[0]!, at))), down: null, values: null };
  const [head, ...rows] = grid as [string[], ...string[][]];
  const corner = head[0]!.trim() === '' || !isNumber(head[0]!) || rows[0]?.length === head.length + 1;
  const across = axisOf(
    (corner && rows[0]?.length !== head.length + 1 ? head.slice(1) : head).map((cell) => numberOf(cell, 0)),
  );
  if (rows.length === 0) return { across, down: null, values: null };
  const withLoad = rows.every((row) => row.length === across.length + 1);
  if (!withLoad && !(rows.length === 1 && rows[0]!.length === across.length)) {
    const wrong = rows.findIndex((row) => row.length !== across.length + 1);
    throw new Refusal(
      `Line ${wrong + 2} has ${rows[wrong]!.length} cells; with its load first it should have ${across.length + 1}.`,
    );
  }
  const values = rows.flatMap((row, at) =>
    row.slice(withLoad ? 1 : 0).map((cell) => (cell.trim() === '' ? NaN : numberOf(cell, at + 1))),
  );
  return { across, down: withLoad ? axisOf(rows.map((row, at) => numberOf(row[0]!, at + 1))) : null, values };
}

function cellsOf(line: string, separator: RegExp | undefined): string[] {
  if (separator) return line.split(separator).map((cell) => cell.trim().replace(/^(-?\d+),(\d+)$/, '$1.$2'));
  // Blanks are made single first: a pattern that tries them at every place would take a square of the line.
  const single = line.trim().replace(/\s+/g, ' ');
  return single.includes(',') ? single.split(',').map((cell) => cell.trim()) : single.split(' ');
}

const isNumber = (cell: string): boolean => cell.trim() !== '' && Number.isFinite(Number(cell));

function numberOf(cell: string, line: number): number {
  if (!isNumber(cell)) throw new Refusal(`Line ${line + 1}: “${cell.slice(0, 40)}” is not a number.`);
  return Number(cell);
}

function axisOf(breakpoints: number[]): number[] {
  mustBeAxis({ channel: 'engineSpeed', breakpoints });
  return breakpoints;
}

/** Values of a table read over other axes are refused: a multiplier laid over the wrong cells is worse than none. @throws Refusal */
export function mustFit({ across, down }: FuellingAxes, read: TableText): void {
  const same = (a: readonly number[], b: readonly number[] | null) =>
    b?.length === a.length && a.every((value, at) => Math.abs(value - b[at]!) <= 1e-6 * Math.abs(value) + 1e-9);
  if (!same(across.breakpoints, read.across) || (down ? !same(down.breakpoints, read.down) : read.down !== null))
    throw new Refusal('The table was read over other breakpoints than these: take its axes over first.');
  if (read.values && read.values.length !== cellCount({ across, down }))
    throw new Refusal('The table has cells missing.');
}
