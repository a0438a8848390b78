import type { Run } from '../../contract/records.ts';
import type { Database } from '../store/database.ts';
import { addRun, type NewRun } from '../store/runs.ts';
import { appendChunk, sealRun } from '../store/samples.ts';

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
  private waiting: Float64Array[] = [];
  /** Sent and not yet acknowledged: tried again as it is, so that no sample is stored twice. */
  private batch: Float64Array[] | undefined;
  private sequence = 0;
  private ending: { as: 'sealed' | 'interrupted'; remarks: string[] } | undefined;
  private finished = false;
  private timer: NodeJS.Timeout | undefined;
  private working = false;
  private settle!: (run: Run) => void;
  /** Settles when the run is sealed. */
  readonly sealed = new Promise<Run>((resolve) => (this.settle = resolve));

  constructor(
    private readonly database: Database,
    private readonly beginning: NewRun,
    private readonly onChange: (problem: string | null) => void,
  ) {
    this.plan(0);
  }

  push(rows: readonly Float64Array[]): void {
    for (const row of rows) this.waiting.push(row);
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
      await this.store();
      if (this.waiting.length > 0 || (this.ending && !this.finished)) next = this.ending ? 0 : flushMs;
    } catch (error) {
      const count = this.waiting.length + (this.batch?.length ?? 0);
      this.onChange(
        `The database does not take the run (${(error as Error).message}). ${count} samples wait in memory; storing is tried again.`,
      );
      next = retryMs;
    }
    this.working = false;
    if (next !== undefined) this.plan(next);
  }

  private async store(): Promise<void> {
    this.run ??= await addRun(this.database, this.beginning);
    if (this.waiting.length > 0 || this.batch) {
      this.batch ??= this.waiting.splice(0);
      await appendChunk(this.database, this.run.id, this.sequence, columnsOf(this.batch));
      this.sequence++;
      this.batch = undefined;
    }
    if (this.ending && this.waiting.length === 0) {
      await sealRun(this.database, this.run, this.ending.as, this.ending.remarks);
      this.finished = true;
      this.settle(this.run);
    }
    this.onChange(null);
  }
}

function columnsOf(rows: readonly Float64Array[]): Float64Array[] {
  return Array.from(rows[0]!, (_, column) => Float64Array.from(rows, (row) => row[column]!));
}
