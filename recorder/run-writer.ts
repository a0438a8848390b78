import type { Run } from '../contract/records.ts';
import type { NewRun, RecorderStore } from './recorder-store.ts';

/** Rows reach the database at least this often, ms. */
const flushMs = 100;
/** After a failure storing is tried again this often, ms. */
const retryMs = 500;

/**
 * Stores one run while it is recorded: rows are gathered for a tenth of a
 * second and appended as a chunk. While the database cannot be reached they
 * wait in memory and are tried again, in order; none is dropped.
 */
export class RunWriter {
  run: Run | undefined;
  /** Rows of the dyno that were taken so far. */
  rows = 0;
  /** By source: the dyno's own rows are 0, those of loggers beside it 1, 2 … */
  private readonly waiting = new Map<number, Float64Array[]>();
  /** Sent and not yet acknowledged: tried again as it is, so that no sample is stored twice. */
  private batch: { source: number; rows: Float64Array[] } | undefined;
  private readonly sequences = new Map<number, number>();
  private ending: { as: 'sealed' | 'interrupted'; remarks: string[] } | undefined;
  private finished = false;
  private timer: NodeJS.Timeout | undefined;
  private working = false;
  private settle!: (run: Run) => void;
  private settleBegun!: () => void;
  /** Settles when the run is entered and has its number. */
  readonly begun = new Promise<void>((resolve) => (this.settleBegun = resolve));
  /** Settles when the run is sealed. */
  readonly sealed = new Promise<Run>((resolve) => (this.settle = resolve));

  /** @param before the run of the same dyno before this one: runs get their numbers in the order they were driven */
  constructor(
    private readonly store: RecorderStore,
    private readonly beginning: NewRun,
    private readonly onChange: (problem: string | null) => void,
    private readonly before?: RunWriter,
  ) {
    this.plan(0);
  }

  push(rows: readonly Float64Array[], source = 0): void {
    if (rows.length === 0) return;
    if (source === 0) this.rows += rows.length;
    const waiting = this.waiting.get(source);
    if (waiting) for (const row of rows) waiting.push(row);
    else this.waiting.set(source, [...rows]);
    this.plan(flushMs);
  }

  /** Ends the run once everything has been stored. */
  end(as: 'sealed' | 'interrupted', remarks: string[]): void {
    this.ending ??= { as, remarks };
    this.plan(0);
  }

  private plan(inMs: number): void {
    if (this.working || this.finished) return;
    if (inMs === 0) clearTimeout(this.timer);
    else if (this.timer) return;
    this.timer = setTimeout(() => void this.work(), inMs);
  }

  private async work(): Promise<void> {
    this.timer = undefined;
    this.working = true;
    let next: number | undefined;
    try {
      await this.storeAll();
      if (this.waiting.size > 0 || (this.ending && !this.finished)) next = this.ending ? 0 : flushMs;
    } catch (error) {
      let count = this.batch?.rows.length ?? 0;
      for (const rows of this.waiting.values()) count += rows.length;
      this.onChange(
        `The database does not take the run (${(error as Error).message}). ${count} samples wait in memory; storing is tried again.`,
      );
      next = retryMs;
    }
    this.working = false;
    if (next !== undefined) this.plan(next);
  }

  private async storeAll(): Promise<void> {
    await this.before?.begun;
    this.run ??= await this.store.addRun(this.beginning);
    this.settleBegun();
    for (let batch = this.nextBatch(); batch; batch = this.nextBatch()) {
      const { source, rows } = batch;
      const sequence = this.sequences.get(source) ?? 0;
      await this.store.appendChunk(this.run.id, source, sequence, columnsOf(rows));
      this.sequences.set(source, sequence + 1);
      this.batch = undefined;
    }
    if (this.ending) {
      await this.store.sealRun(this.run, this.ending.as, this.ending.remarks);
      this.finished = true;
      this.settle(this.run);
    }
    this.onChange(null);
  }

  private nextBatch(): { source: number; rows: Float64Array[] } | undefined {
    if (this.batch) return this.batch;
    for (const [source, rows] of this.waiting) {
      this.waiting.delete(source);
      this.batch = { source, rows };
      return this.batch;
    }
    return undefined;
  }
}

function columnsOf(rows: readonly Float64Array[]): Float64Array[] {
  return Array.from(rows[0]!, (_, column) => Float64Array.from(rows, (row) => row[column]!));
}
