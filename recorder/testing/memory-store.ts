import type { NewRun } from '../../contract/bays/recorded-run.ts';
import type { Run } from '../../contract/job/records.ts';
import type { RowsKept } from '../../store/runs/samples.ts';
import type { RunStore } from '../database/recorder-store.ts';

interface StoredRun {
  run: Run;
  beginning: NewRun;
  rows: Map<number, Float64Array[]>;
  /** Of each source, the row that comes next: further on than there are rows where some are missing. */
  next: Map<number, number>;
  as?: 'sealed' | 'interrupted';
  remarks: readonly string[];
}

/** What happens to a call: it is done; refused; or done, and nobody hears of it. */
export type Fate = 'done' | 'refused' | 'answer lost';

/** A database in memory that does what the real one promises: each thing has an effect once. */
export class MemoryStore implements RunStore {
  readonly runs = new Map<string, StoredRun>();
  calls = 0;
  /** Decides the fate of the n-th call. */
  fate: (call: number) => Fate = () => 'done';

  private async meets<T>(act: () => T): Promise<T> {
    await Promise.resolve();
    const fate = this.fate(++this.calls);
    if (fate === 'refused') throw new Error('the database has gone');
    const result = act();
    if (fate === 'answer lost') throw new Error('the answer was lost');
    return result;
  }

  private of(run: Run): StoredRun {
    const found = [...this.runs.values()].find((stored) => stored.run.id === run.id);
    if (!found) throw new Error('no such run');
    return found;
  }

  /** Which database it is. */
  identity = '00000000-0000-4000-8000-00000000000a';

  takePlace(): Promise<string> {
    return this.meets(() => this.identity);
  }

  addRun(beginning: NewRun): Promise<Run> {
    return this.meets(() => {
      const known = this.runs.get(beginning.key);
      if (known) return known.run;
      const run = { id: this.runs.size + 1, state: 'recording' } as Run;
      this.runs.set(beginning.key, { run, beginning, rows: new Map(), next: new Map(), remarks: [] });
      return run;
    });
  }

  rowsKept(run: Run): Promise<Map<number, RowsKept>> {
    return this.meets(() => {
      const { rows, next } = this.of(run);
      return new Map([...next].map(([source, row]) => [source, { next: row, rows: rows.get(source)?.length ?? 0 }]));
    });
  }

  appendChunk(run: Run, source: number, from: number, columns: Float64Array[]): Promise<void> {
    return this.meets(() => {
      const { rows: sources, next, as } = this.of(run);
      // One that is there is left as it is.
      if (as || from < (next.get(source) ?? 0)) return;
      const rows = sources.get(source) ?? [];
      sources.set(source, rows);
      next.set(source, from + columns[0]!.length);
      columns[0]!.forEach((_, at) => rows.push(Float64Array.from(columns, (column) => column[at]!)));
    });
  }

  sealRun(run: Run, as: 'sealed' | 'interrupted', remarks: readonly string[]): Promise<void> {
    return this.meets(() => {
      const stored = this.of(run);
      if (stored.as) return;
      Object.assign(stored, { as, remarks, run: { ...run, state: as } });
    });
  }
}
