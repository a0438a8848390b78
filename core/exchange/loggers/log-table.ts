import Papa from 'papaparse';
import { Refusal } from '../../refusal.ts';
import { cellNumber } from '../tables/cells.ts';
import { plainHeading } from '../tables/safe-heading.ts';

/** A table that a logger wrote: its columns by their headings, with units where a row of them stands under the headings. */
export interface LogTable {
  columns: LogColumn[];
  rows: number;
  /** What was left out or taken otherwise than written, a sentence each. */
  remarks: string[];
}

export interface LogColumn {
  heading: string;
  /** As it is written; empty where it is not. */
  unit: string;
  /** NaN where nothing was read. */
  values: Float64Array;
}

/** Lines before the headings: titles, dates, what the logger is set to. */
const mostBefore = 60;
/** A logger's table has so many rows at least; a result table may have few. */
const usualLeastRows = 20;
const separators = ['\t', ';', '|', ','] as const;
const comment = /^\s*(#|\/\/|%|!)/;

/** The text of a file, whatever it is written in. @throws Refusal when it is none */
export function decodedText(bytes: Uint8Array): string {
  const [a, b] = bytes;
  // Without its mark, UTF-16 is told by the zeros that Latin letters leave in it.
  const zeros = (from: number) => bytes.subarray(0, 400).filter((value, at) => at % 2 === from && value === 0).length;
  const half = Math.min(200, bytes.length / 2);
  if ((a === 0xff && b === 0xfe) || zeros(1) > 0.6 * half) return new TextDecoder('utf-16le').decode(bytes);
  if ((a === 0xfe && b === 0xff) || zeros(0) > 0.6 * half) return new TextDecoder('utf-16be').decode(bytes);
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder('windows-1252').decode(bytes);
  }
}

/**
 * Reads a logger's table in any common dialect: comma, semicolon, tab or bar
 * between the cells, decimal point or comma, quotes, lines before the
 * headings, comment lines, a row of units, blank columns, headings that come
 * again, headings twice.
 * @throws Refusal with what is wrong with it
 */
export function readLogTable(text: string, leastRows = usualLeastRows): LogTable {
  if (text.slice(0, 4096).includes('\0'))
    throw new Refusal('The file is not text. Export the log as text (CSV) and try again.');
  const lines = text
    .replace(/^\uFEFF/, '')
    .split(/\r\n|\n|\r/)
    .filter((line) => line.trim() !== '' && !comment.test(line));
  const separator = separatorOf(lines);
  const cells = Papa.parse<string[]>(lines.join('\n'), { delimiter: separator, skipEmptyLines: 'greedy' }).data.map(
    (row) => row.map((cell) => cell.trim()),
  );
  const head = headingsAt(cells);
  const headings = cells[head]!;
  const under = cells[head + 1] ?? [];
  const units = under.every((cell) => Number.isNaN(cellNumber(cell))) ? under : undefined;
  const repeated = headings.join('\t');
  const body = cells.slice(head + (units ? 2 : 1));
  const rows = body.filter((row) => row.join('\t') !== repeated && !(units && row.join('\t') === units.join('\t')));
  const remarks: string[] = [];
  if (rows.length < body.length) remarks.push('Headings that came again between the rows were left out.');
  if (rows.length < leastRows)
    throw new Refusal(`Only ${rows.length} rows stand under the headings; ${leastRows} are needed.`);
  const columns = headings.flatMap((heading, at) => {
    const values = Float64Array.from(rows, (row) => cellNumber(row[at] ?? ''));
    if (heading === '' && values.every(Number.isNaN)) return [];
    const { name, unit } = headingWithUnit(plainHeading(heading), units?.[at]);
    return [{ heading: name || `column ${at + 1}`, unit, values }];
  });
  const seen = new Map<string, number>();
  for (const column of columns) {
    const times = (seen.get(column.heading) ?? 0) + 1;
    seen.set(column.heading, times);
    if (times > 1) column.heading = `${column.heading} (${times})`;
  }
  const empty = columns.filter(({ values }) => values.every(Number.isNaN)).map(({ heading }) => heading);
  if (empty.length > 0) remarks.push(`No number stands in ${empty.join(', ')}: left out.`);
  return { columns: columns.filter(({ heading }) => !empty.includes(heading)), rows: rows.length, remarks };
}

/** The separator that cuts most lines into the same number of cells. */
function separatorOf(lines: readonly string[]): string {
  const sample = lines.slice(0, 200);
  const scored = separators.map((separator) => {
    const counts = sample
      .map((line) => line.replace(/"[^"]*"/g, '').split(separator).length)
      .filter((count) => count > 1);
    const usual = mostFrequent(counts);
    return { separator, score: usual < 2 ? 0 : counts.filter((count) => count === usual).length };
  });
  // Numbers with a decimal comma have as many commas as a table of commas: the other signs come first.
  const best = scored.reduce((one, other) => (other.score > one.score ? other : one));
  if (best.score === 0)
    throw new Refusal('No table was found in the file: no comma, semicolon, tab or bar cuts its lines into columns.');
  return best.separator;
}

function mostFrequent(values: readonly number[]): number {
  const counts = new Map<number, number>();
  for (const value of values) counts.set(value, (counts.get(value) ?? 0) + 1);
  return [...counts].reduce((most, one) => (one[1] > most[1] ? one : most), [0, 0])[0];
}

/** The row of headings: words, with a row of numbers soon beneath. */
function headingsAt(cells: readonly (readonly string[])[]): number {
  const numbers = (row: readonly string[] = []) => row.filter((cell) => !Number.isNaN(cellNumber(cell))).length;
  for (let at = 0; at < Math.min(mostBefore, cells.length - 1); at++) {
    const row = cells[at]!;
    const filled = row.filter((cell) => cell !== '').length;
    const beneath = Math.max(numbers(cells[at + 1]), numbers(cells[at + 2]));
    if (filled > 1 && numbers(row) === 0 && beneath > 1 && beneath >= 0.5 * filled) return at;
  }
  throw new Refusal('No row of headings was found: one must name the columns, with numbers beneath.');
}

/** `Engine speed [rpm]`, `Engine speed (rpm)`, or the unit in a row of its own. */
function headingWithUnit(heading: string, unit = ''): { name: string; unit: string } {
  const found = /^(.*?)\s*[[(]([^\])]{0,12})[\])]\s*$/.exec(heading);
  const own = unit.replace(/^[[(]|[\])]$/g, '').trim();
  return found ? { name: found[1]!.trim(), unit: found[2]!.trim() || own } : { name: heading.trim(), unit: own };
}
