import { EventEmitter } from 'node:events';
import type { Log } from '../../contract/values/service-log.ts';
import type { Run } from '../../contract/job/records.ts';
import { Displaced, NeverTaken, OtherDatabase, type RunStore } from './recorder-store.ts';
import type { Journal } from '../spool/journal.ts';
import { endWithMissing } from './missing-rows.ts';
import type { KeptRun } from '../spool/journal-index.ts';

/** After a failure storing is tried again this often, ms. */
const retryMs = 500;
/** A run that the database refuses for its own sake is tried again this often, ms. */
const refusedMs = 60_000;
/** When the recorder stops, storing goes on for so long at most, ms. */
const lastMomentMs = 3000;

const otherDataRemark =
  'It was recorded before the data were restored or begun anew, so it belongs to no job until it is claimed.';

interface DrainerEvents {
  /** A run is entered, or stored whole, or storing fails or goes on again. */
  changed: [];
  /** The database has a run whole. */
  stored: [key: string, run: Run];
  /** A place was taken in this database. */
  database: [identity: string];
}

/** How far a run has come into the database. */
interface Drained {
  run: Run;
  /** The row of each source that comes next, counted in its session, and how many of it are stored. */
  next: number[];
  stored: number[];
}

/** A run that the database refuses, until when it is left alone, ms, and why. */
interface Refused {
  untilMs: number;
  why: string;
}

/**
 * Brings runs from the spool into the database, in the order they began,
 * while they are recorded and afterwards. Whatever is asked of the database is
 * asked again until it is answered; each thing has an effect once.
 */
export class Drainer extends EventEmitter<DrainerEvents> {
  /** Why storing waits, as a sentence. */
  problem: string | null = null;
  private readonly drained = new Map<string, Drained>();
  private readonly refused = new Map<string, Refused>();
  /** The database that a place was taken in. */
  private database: string | undefined;
  private displaced = false;
  private working: Promise<void> | undefined;
  private again = false;
  private timer: NodeJS.Timeout | undefined;
  private refusedTimer: NodeJS.Timeout | undefined;
  private stopped = false;

  constructor(
    private readonly journal: Journal,
    private readonly store: RunStore,
    private readonly log: Log,
  ) {
    super();
    journal.on('progress', () => this.wake());
    this.wake();
  }

  /** A run as the database knows it; undefined until it is entered. */
  entered(key: string): Run | undefined {
    return this.drained.get(key)?.run;
  }

  /** Looks for what there is to store. */
  wake(): void {
    if (this.stopped || this.displaced) return;
    if (this.working) this.again = true;
    else if (!this.timer) this.working = this.work();
  }

  /** Settles when nothing is being stored. */
  async idle(): Promise<void> {
    while (this.working) await this.working;
  }

  /** Stores what it can in a moment, then ends; what is left is on the disk for the next life. */
  async stop(): Promise<void> {
    let patience: NodeJS.Timeout | undefined;
    const moment = new Promise<void>((resolve) => (patience = setTimeout(resolve, lastMomentMs)));
    await Promise.race([this.working, moment]);
    clearTimeout(patience);
    this.stopped = true;
    clearTimeout(this.timer);
    clearTimeout(this.refusedTimer);
  }

  /** Never rejects. */
  private async work(): Promise<void> {
    do {
      this.again = false;
      try {
        if (this.database === undefined) await this.takePlace();
        await this.storeAll();
        this.tell(this.refusal());
      } catch (error) {
        this.fail(error as Error);
        break;
      }
    } while (this.again && !this.stopped);
    this.working = undefined;
  }

  private async takePlace(): Promise<void> {
    this.database = await this.store.takePlace(this.journal.unstored.map(({ run }) => run.key));
    this.emit('database', this.database);
  }

  private fail(error: Error): void {
    if (error instanceof OtherDatabase) {
      // Runs that count as entered are entered in the other database, not in this one.
      this.database = undefined;
      this.drained.clear();
      this.refused.clear();
    }
    if (!this.problem)
      this.log.warn({ err: error, runs: this.journal.unstored.length }, 'storing runs failed; it is tried again');
    if (error instanceof Displaced) {
      this.displaced = true;
      return this.tell(
        'Another recorder has taken this one’s place. What is recorded stays on this machine’s disk; stop one of the two, then start Suvok again.',
      );
    }
    this.tell(
      `The database does not answer. Recording goes on; ${this.waiting()}. It is asked again (it said: ${error.message}).`,
    );
    if (this.stopped) return;
    this.timer = setTimeout(() => {
      this.timer = undefined;
      this.wake();
    }, retryMs);
  }

  private waiting(): string {
    const runs = this.journal.unstored;
    if (runs.length === 0) return 'nothing waits to be stored';
    return `${runs.length === 1 ? 'a run waits' : `${runs.length} runs wait`} on this machine’s disk and will be stored`;
  }

  private tell(problem: string | null): void {
    if (this.problem === problem) return;
    this.problem = problem;
    this.emit('changed');
  }

  private async storeAll(): Promise<void> {
    for (const kept of this.journal.unstored) {
      if (this.stopped) return;
      const { key } = kept.run;
      if ((this.refused.get(key)?.untilMs ?? 0) > performance.now()) continue;
      try {
        await this.storeRun(kept);
        this.refused.delete(key);
      } catch (error) {
        if (!(error instanceof NeverTaken)) throw error;
        // Only this run is refused: the others go on. It is entered anew and tried again later.
        this.drained.delete(key);
        this.refused.set(key, { untilMs: performance.now() + refusedMs, why: error.message });
        this.log.error({ err: error, key }, 'the database refuses a run; it is tried again');
        clearTimeout(this.refusedTimer);
        if (!this.stopped) this.refusedTimer = setTimeout(() => this.wake(), refusedMs);
      }
    }
  }

  /** What is said of runs that the database refuses; null where it refuses none. */
  private refusal(): string | null {
    const [first, ...others] = this.refused.values();
    if (!first) return null;
    const what = others.length === 0 ? 'a run' : `${others.length + 1} runs`;
    return `The database refuses ${what} (it said: ${first.why}). Nothing is lost: it stays on this machine’s disk and is offered again every minute.`;
  }

  private async storeRun(kept: KeptRun): Promise<void> {
    const { key } = kept.run;
    const drained = await this.enter(kept);
    const { run, next } = drained;
    // Stored before, and only the answer was lost.
    if (run.state !== 'recording') return this.finish(key, run);
    for (const [at, { source, session, from }] of kept.sources.entries()) {
      for (let to = rowAfter(kept, at); next[at]! < to; to = rowAfter(kept, at)) {
        const rows = await this.read(drained, at, session, to);
        if (!rows) break;
        if (rows.length > 0) await this.store.appendChunk(run, source, next[at]! - from, columnsOf(rows));
        next[at]! += rows.length;
        drained.stored[at]! += rows.length;
        if (this.stopped) return;
      }
    }
    const { end } = kept;
    if (!end || !end.to.every((to, at) => next[at]! >= to)) return;
    const { as, remarks } = endWithMissing(kept, end, drained.stored);
    await this.store.sealRun(run, as, this.isOfAnother(kept.run) ? [...remarks, otherDataRemark] : remarks);
    this.finish(key, run);
  }

  /**
   * Rows that come next of a source; none where some are missing, which are passed over; undefined where none are on
   * the disk yet.
   * @param to the row after the last; not finite while the end is not on the disk. Once it is, so is all before it.
   */
  private async read(drained: Drained, at: number, session: number, to: number): Promise<Float64Array[] | undefined> {
    const from = drained.next[at]!;
    const extent = this.journal.index.extentFrom(session, from);
    if (!extent || extent.first > from) {
      if (!Number.isFinite(to)) return undefined;
      drained.next[at] = Math.min(to, extent?.first ?? to);
      return [];
    }
    try {
      return await this.journal.rows(session, from, to);
    } catch (error) {
      this.log.error({ err: error, session }, 'rows cannot be read back from the spool');
      drained.next[at] = Math.min(to, extent.first + extent.count);
      return [];
    }
  }

  private async enter({ run: begun, sources }: KeptRun): Promise<Drained> {
    const known = this.drained.get(begun.key);
    if (known) return known;
    // Its setup's number may be another customer's here: whoever knows whose run it is claims it.
    const goes = this.isOfAnother(begun) ? { ...begun, setup: null } : begun;
    const run = await this.store.addRun(goes).catch((error: Error) => {
      if (!(error instanceof NeverTaken) || goes.setup === null) throw error;
      // Its setup has gone: kept all the same, for whoever claims it.
      return this.store.addRun({ ...goes, setup: null });
    });
    const kept = await this.store.rowsKept(run);
    const drained = {
      run,
      next: sources.map(({ source, from }) => from + (kept.get(source)?.next ?? 0)),
      stored: sources.map(({ source }) => kept.get(source)?.rows ?? 0),
    };
    this.drained.set(begun.key, drained);
    this.emit('changed');
    return drained;
  }

  /** A run was recorded for a setup of another database than the present one. */
  private isOfAnother({ setup, database }: KeptRun['run']): boolean {
    return setup !== null && database !== null && database !== this.database;
  }

  private finish(key: string, run: Run): void {
    this.journal.stored(key);
    this.drained.delete(key);
    // It was away, and what waited takes its time.
    if (this.problem && this.refused.size === 0 && this.journal.unstored.length > 0)
      this.tell(`The database answers again; ${this.waiting()}.`);
    this.emit('stored', key, run);
    this.emit('changed');
  }
}

/**
 * The row after the last of a run's source, as it is known now: asked anew
 * before every reading, since the end may have come while rows before it were stored.
 */
function rowAfter({ end, ending }: KeptRun, at: number): number {
  return end?.to[at] ?? (at === 0 ? ending?.to : undefined) ?? Infinity;
}

function columnsOf(rows: readonly Float64Array[]): Float64Array[] {
  return Array.from(rows[0]!, (_, column) => Float64Array.from(rows, (row) => row[column]!));
}
