/** Keeps the rows of the last seconds of an instrument's clock, so that a run can begin before it was noticed. */
export class PreBuffer {
  private rows: Float64Array[] = [];

  constructor(private readonly spanS: number) {}

  push(row: Float64Array): void {
    if (this.latest && row[0]! <= this.latest[0]!) this.rows = [];
    this.rows.push(row);
    // Cut in steps, or every row of a fast instrument would move the whole buffer.
    const oldest = row[0]! - this.spanS;
    if (this.rows[0]![0]! >= oldest - this.spanS / 4) return;
    this.rows = this.rows.slice(this.rows.findIndex((kept) => kept[0]! >= oldest));
  }

  /** The rows from a time on, oldest first. */
  since(time: number): Float64Array[] {
    return this.rows.filter((row) => row[0]! >= time);
  }

  get oldest(): Float64Array | undefined {
    return this.rows[0];
  }

  get latest(): Float64Array | undefined {
    return this.rows.at(-1);
  }
}
