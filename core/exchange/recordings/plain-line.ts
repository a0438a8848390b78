/** How a line of text becomes readings; the contract's `lineForm`. */
export interface PlainLineForm {
  separator: string;
  decimalComma: boolean;
  /** Lines that do not begin so hold no reading. */
  begins: string;
  columns: readonly PlainColumn[];
}

export type PlainColumn =
  | { is: 'channel'; name: string; unit: string }
  | { is: 'time'; unit: 's' | 'ms' | 'µs' }
  | { is: 'nothing' };

/** Readings of one line: time in s, where a column tells it, and a value for each column that is a channel, in order. */
export interface PlainReading {
  time: number | undefined;
  values: (number | null)[];
}

/** Units of an instrument's clock, in a second. */
export const perSecond = { s: 1, ms: 1e3, µs: 1e6 } as const;
/** What instruments write where they read nothing. */
const absent = new Set(['', '-', '--', '---', 'nan', 'n/a', 'null', 'none', 'err']);

/** The cells of a line, without what it begins with; undefined where it begins otherwise. */
export function lineCells(form: Pick<PlainLineForm, 'separator' | 'begins'>, line: string): string[] | undefined {
  const text = line.trim();
  const { begins, separator } = form;
  if (!text.startsWith(begins.trim())) return undefined;
  const rest = text.slice(begins.trim().length);
  if (separator === ' ') return rest.trim() === '' ? [] : rest.trim().split(/\s+/);
  // What a line begins with may be a cell of its own.
  const body = begins !== '' && rest.startsWith(separator) ? rest.slice(separator.length) : rest;
  return body.split(separator).map((cell) => cell.trim());
}

/** A cell as a number; null where it says that nothing was read, undefined where it is no number. */
export function cellValue(cell: string, decimalComma: boolean): number | null | undefined {
  if (absent.has(cell.toLowerCase())) return null;
  const value = Number(decimalComma ? cell.replace(',', '.') : cell);
  return Number.isFinite(value) ? value : undefined;
}

/**
 * Reads a line by its form.
 * @returns undefined where it holds no reading: it begins otherwise, has too few cells, or one that is no number
 */
export function readPlainLine(form: PlainLineForm, line: string): PlainReading | undefined {
  const cells = lineCells(form, line);
  if (!cells || cells.length < form.columns.length) return undefined;
  let time: number | undefined;
  const values: (number | null)[] = [];
  for (const [index, column] of form.columns.entries()) {
    if (column.is === 'nothing') continue;
    const value = cellValue(cells[index]!, form.decimalComma);
    if (value === undefined) return undefined;
    if (column.is === 'channel') values.push(value);
    else if (value === null) return undefined;
    else time = value / perSecond[column.unit];
  }
  return { time, values };
}

/** How lines are most likely written: the separator that parts most of them alike, and whether numbers have a comma. */
export function likelyForm(lines: readonly string[]): {
  separator: ',' | ';' | '\t' | ' ' | '|';
  decimalComma: boolean;
} {
  let best: { separator: ',' | ';' | '\t' | ' ' | '|'; decimalComma: boolean } = {
    separator: ',',
    decimalComma: false,
  };
  let most = 0;
  for (const separator of [';', '\t', '|', ',', ' '] as const)
    for (const decimalComma of separator === ',' ? [false] : [false, true]) {
      const cells = lines.map((line) => lineCells({ separator, begins: '' }, line) ?? []);
      const numbers = cells.flat().filter((cell) => typeof cellValue(cell, decimalComma) === 'number').length;
      const alike = new Set(cells.map(({ length }) => length)).size === 1 ? 1 : 0.5;
      // A comma that only thousands have makes no more numbers than a point does.
      const score = numbers * alike - (decimalComma ? 0.25 : 0);
      if (score > most) [best, most] = [{ separator, decimalComma }, score];
    }
  return best;
}
