import type { Recording, Channel } from '../../recording/recording.ts';
import { Refusal } from '../../refusal.ts';

/** Rows that are made room for at first; more are where they are needed. */
const firstRoom = 4096;

/**
 * Reads a recording whose channels are known out of the lines that `recordingCsvPieces` wrote, as they come:
 * a recording of any length is in memory as its numbers alone.
 */
export class RecordingLines {
  private rest = '';
  private line = 0;
  private rows = 0;
  private columns: Float64Array[];

  /** @param channels in the order of their columns, after time */
  constructor(private readonly channels: readonly Pick<Channel, 'name' | 'unit'>[]) {
    this.columns = Array.from({ length: channels.length + 1 }, () => new Float64Array(firstRoom));
  }

  /** @throws Refusal that names the line which is none */
  push(text: string): void {
    const lines = (this.rest + text).split('\n');
    this.rest = lines.pop() ?? '';
    for (const line of lines) this.take(line);
  }

  /** @throws Refusal where the last line is not whole */
  end(): Recording {
    if (this.rest !== '') throw new Refusal(`its last line (${this.line + 1}) is not whole`);
    const [time = new Float64Array(0), ...values] = this.columns.map((column) => column.slice(0, this.rows));
    return { time, channels: this.channels.map((channel, index) => ({ ...channel, values: values[index]! })) };
  }

  private take(line: string): void {
    this.line++;
    // The first one names the columns.
    if (this.line === 1) return;
    const cells = line.split(',');
    if (cells.length !== this.columns.length)
      throw new Refusal(`line ${this.line} has ${cells.length} cells, not ${this.columns.length}`);
    if (this.rows === this.columns[0]!.length) this.columns = this.columns.map(twiceAsLong);
    for (const [index, text] of cells.entries()) {
      const value = text === '' ? NaN : Number(text);
      if (text !== '' && Number.isNaN(value))
        throw new Refusal(`“${text.slice(0, 40)}” in line ${this.line} is no number`);
      this.columns[index]![this.rows] = value;
    }
    this.rows++;
  }
}

function twiceAsLong(column: Float64Array): Float64Array {
  const longer = new Float64Array(2 * column.length);
  longer.set(column);
  return longer;
}
