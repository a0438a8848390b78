import { sampleAt } from '../../numerics/sample-at.ts';
import type { Recording } from '../../recording/recording.ts';
import { Refusal } from '../../refusal.ts';
import { columnsOf, type Column } from './columns.ts';
import type { Cells } from '../tables/cells.ts';
import { CsvRows } from '../tables/csv-table.ts';
import { medianOf } from '../../numerics/quantile.ts';

export interface ReadRecording {
  recording: Recording;
  /** What was dropped or taken otherwise than written, a sentence each. */
  remarks: string[];
}

/** A larger share of unusable rows than this refuses the file. */
const mostUnusable = 0.2;
const leastRows = 20;

/**
 * Reads a recording from CSV text that comes in pieces.
 *
 * Isolated cells that hold no number cost their row where figures depend on
 * them, and are left blank elsewhere; rows whose time repeats or steps back
 * are left out. All of it is said in the remarks.
 */
export class RecordingReader {
  private taker: RowTaker | undefined;
  private readonly table = new CsvRows((header) => {
    const { columns, time, remarks } = columnsOf(header);
    const taker = (this.taker = new RowTaker(columns, time, remarks));
    return (row) => taker.take(row);
  });

  /** Takes the next piece, cut anywhere. @throws Refusal with a sentence when the file cannot be a recording */
  push(text: string): void {
    this.table.push(text);
  }

  /** The text is over. @throws Refusal with a sentence when the file cannot be a recording */
  end(): ReadRecording {
    this.table.end();
    if (!this.taker || this.table.rows === 0) throw new Refusal('The file has a header line but no rows under it.');
    return this.taker.read(this.table.rows);
  }
}

/** Reads a recording from CSV text that is there whole. @throws Refusal with a sentence when the file cannot be a recording */
export function readRecordingCsv(text: string): ReadRecording {
  const reader = new RecordingReader();
  reader.push(text);
  return reader.end();
}

const blockLength = 16_384;

/** Collects numbers in blocks: a list that grows by copying would for a moment be in memory twice. */
class Numbers {
  private full: Float64Array[] = [];
  private block = new Float64Array(blockLength);
  private inBlock = 0;

  get length(): number {
    return this.full.length * blockLength + this.inBlock;
  }

  push(value: number): void {
    if (this.inBlock === blockLength) {
      this.full.push(this.block);
      this.block = new Float64Array(blockLength);
      this.inBlock = 0;
    }
    this.block[this.inBlock++] = value;
  }

  /** All of them; the collector keeps none. */
  taken(): Float64Array {
    const all = new Float64Array(this.length);
    this.full.forEach((block, at) => all.set(block, at * blockLength));
    all.set(this.block.subarray(0, this.inBlock), this.full.length * blockLength);
    this.full = [];
    this.inBlock = 0;
    return all;
  }
}

/** Takes a file's rows as they come: each cell is read once, and no row is kept. */
class RowTaker {
  private readonly numbers: Numbers[];
  private readonly timeAt: number;
  private readonly row: Float64Array;
  private unreadable = 0;
  private repeated = 0;
  private backward = 0;
  private blanked = 0;
  private latest = -Infinity;

  constructor(
    private readonly columns: readonly Column[],
    time: Column,
    private readonly remarks: string[],
  ) {
    this.numbers = columns.map(() => new Numbers());
    this.timeAt = columns.indexOf(time);
    this.row = new Float64Array(columns.length);
  }

  take(cells: Cells): void {
    const { columns, row } = this;
    let blank = 0;
    for (let index = 0; index < columns.length; index++) {
      const column = columns[index]!;
      const value = column.toChannelUnit(cells.number(column.index));
      row[index] = value;
      if (value === value) continue;
      if (column.needed) return void this.unreadable++;
      if (cells.text(column.index).trim() !== '') blank++;
    }
    const at = sampleAt(row, this.timeAt);
    if (at === this.latest) return void this.repeated++;
    if (at < this.latest) return void this.backward++;
    this.latest = at;
    this.blanked += blank;
    for (let index = 0; index < columns.length; index++) this.numbers[index]!.push(sampleAt(row, index));
  }

  /** @param rows how many there were. @throws Refusal when too few of them can be used */
  read(rows: number): ReadRecording {
    const { remarks, columns, repeated, backward, unreadable, blanked } = this;
    if (repeated + backward > rows / 2) {
      throw new Refusal(
        `Time does not advance in the file: ${repeated + backward} of ${rows} rows are no later than the row before. Check the time column and its unit.`,
      );
    }
    if (backward > mostUnusable * rows) {
      throw new Refusal(
        `Time steps back in the file and ${backward} of ${rows} rows lie before it. Split the recordings and import them one by one.`,
      );
    }
    if (unreadable > mostUnusable * rows) {
      const needed = columns.filter((column) => column.needed).map((column) => column.name);
      throw new Refusal(
        `${unreadable} of ${rows} rows have no readable number in a column that figures need (${needed.join(', ')}).`,
      );
    }
    say(remarks, unreadable, 'row', 'left out: a needed cell held no number.');
    say(remarks, repeated, 'row', 'left out: the time repeats the row before.');
    say(remarks, backward, 'row', 'left out: the time steps back.');
    say(remarks, blanked, 'cell', 'left blank: it held no number.');
    const used = this.numbers[this.timeAt]!.length;
    if (used < leastRows) throw new Refusal(`The file holds only ${used} usable rows: too few for a sweep.`);
    const time = this.numbers[this.timeAt]!.taken();
    remarkOnGaps(time, remarks);
    return {
      recording: {
        time,
        channels: columns.flatMap(({ name, unit }, index) =>
          index === this.timeAt ? [] : [{ name, unit, values: this.numbers[index]!.taken() }],
        ),
      },
      remarks,
    };
  }
}

function say(remarks: string[], count: number, noun: string, what: string): void {
  if (count > 0) remarks.push(`${count} ${noun}${count === 1 ? ' was' : 's were'} ${what}`);
}

function remarkOnGaps(time: Float64Array, remarks: string[]): void {
  const steps = time.subarray(1).map((at, index) => at - sampleAt(time, index));
  const usual = medianOf(steps);
  let gaps = 0;
  let longest = 0;
  let longestAt = 0;
  steps.forEach((step, index) => {
    if (step <= 2.5 * usual) return;
    gaps++;
    if (step > longest) [longest, longestAt] = [step, sampleAt(time, index)];
  });
  if (gaps > 0) {
    remarks.push(
      `${gaps} gap${gaps === 1 ? '' : 's'} in the samples; the longest lasts ${longest.toFixed(2)} s at ${longestAt.toFixed(2)} s.`,
    );
  }
}
