/**
 * Keeps the rows of the last seconds of an instrument's clock, so that a run can
 * begin before it was noticed. None of them came longer ago than that either: of
 * an instrument whose clock stood, or that said nothing, older ones are no use,
 * and the disk may have given them up.
 */
export class PreBuffer {
  private rows: Float64Array[] = [];
  /** When each came, of the process's clock, ms. */
  private cameMs: number[] = [];
  /** The newest row, however long ago it came. */
  latest: Float64Array | undefined;

  constructor(private readonly spanS: number) {}

  push(row: Float64Array): void {
    if (this.latest && row[0]! <= this.latest[0]!) this.keepFrom(this.rows.length);
    this.latest = row;
    this.rows.push(row);
    this.cameMs.push(performance.now());
    // Cut in steps, or every row of a fast instrument would move the whole buffer.
    const slackS = this.spanS / 4;
    const old = this.rows[0]![0]! < row[0]! - this.spanS - slackS;
    if (old || this.cameMs[0]! < performance.now() - 1000 * (this.spanS + slackS)) this.cut();
  }

  /** The rows from a time on, oldest first. */
  since(time: number): Float64Array[] {
    this.cut();
    return this.rows.filter((row) => row[0]! >= time);
  }

  get oldest(): Float64Array | undefined {
    return this.rows[0];
  }

  private cut(): void {
    if (!this.latest) return;
    const oldestS = this.latest[0]! - this.spanS;
    const oldestMs = performance.now() - 1000 * this.spanS;
    const first = this.rows.findIndex((row, at) => row[0]! >= oldestS && this.cameMs[at]! >= oldestMs);
    if (first !== 0) this.keepFrom(first < 0 ? this.rows.length : first);
  }

  private keepFrom(first: number): void {
    this.rows = this.rows.slice(first);
    this.cameMs = this.cameMs.slice(first);
  }
}
