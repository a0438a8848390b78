import { EventEmitter } from 'node:events';
import type { Hello } from '../../contract/instruments/bench-link.ts';
import type { Log } from '../../contract/values/service-log.ts';
import type { NewRun } from '../../contract/bays/recorded-run.ts';
import type { DeviceSettings } from '../../contract/instruments/recording.ts';
import { JournalIndex, type KeptRun, type KeptSession } from './journal-index.ts';
import {
  jsonContent,
  kinds,
  readRows,
  rowsContent,
  type Discontinuity,
  type EndingRecord,
  type EndRecord,
  type SourceOfRun,
} from './records.ts';
import { Spool } from './spool.ts';
import type { SpoolFiles } from './spool-files.ts';

/** Rows that no run has taken are kept this long at least, ms: a pull that nobody has noticed yet is among them. */
const keepMs = 60_000;
/** So many values are gathered into one record at most; a chunk in the database is as long. */
const mostValues = 60_000;
/** Unsaved content beyond this, and nothing more is taken, bytes. */
const mostWaiting = 256 * 2 ** 20;

/** Without one of these, rows belong to nothing: each is written twice. */
const writtenTwice: ReadonlySet<number> = new Set([kinds.session, kinds.begin, kinds.ending, kinds.end]);

interface JournalEvents {
  /** Rows of a session up to a frame number are on the disk. */
  safe: [session: number, sequence: number];
  /** Something new is on the disk. */
  progress: [];
  problem: [string | null];
}

interface Gathered {
  first: number;
  lastSequence: number;
  rows: Float64Array[];
}

/**
 * Everything that instruments say and every beginning and end of a run, on
 * the recorder's own disk, until the database has it. Whatever the recorder
 * knows of a run it knows from here, so that a later life goes on with it.
 */
export class Journal extends EventEmitter<JournalEvents> {
  readonly index: JournalIndex;
  private readonly gathered = new Map<number, Gathered>();
  private readonly closedAt = new Map<number, number>();
  private spool!: Spool;
  private tidying = false;
  private tidiedAt = -Infinity;

  private constructor(private readonly keepMs: number) {
    super();
    this.index = new JournalIndex();
  }

  /** Opens what an earlier life left, or begins anew in an empty folder. */
  static async open(
    files: SpoolFiles,
    log: Log,
    options: { segmentBytes?: number; keepMs?: number } = {},
  ): Promise<Journal> {
    const journal = new Journal(options.keepMs ?? keepMs);
    const { index } = journal;
    journal.spool = await Spool.open(
      files,
      {
        ...(options.segmentBytes ? { segmentBytes: options.segmentBytes } : {}),
        log,
        gather: () => journal.gatherAll(),
        checkpoint: () => index.checkpoint(),
        onSafe: (safe) => {
          for (const { record, place } of safe) index.take(record, place);
          for (const [session, sequence] of index.newlySafe()) journal.emit('safe', session, sequence);
          journal.emit('progress');
          void journal.tidy();
        },
        onProblem: (problem) => {
          journal.emit('problem', problem);
          // A disk that is full takes nothing until something is given up.
          void journal.tidy();
        },
      },
      (record, place) => index.take(record, place),
    );
    // Runs whose loggers nobody waits for any more have ended with what is there.
    for (const end of index.afterRestart()) journal.end(end);
    return journal;
  }

  /** Begins a session of an instrument. @returns its number */
  openSession(hello: Hello, settings: DeviceSettings): number {
    const record = { session: this.index.nextSession(), hello, settings, rows: 0, lastSequence: null, doneTo: 0 };
    this.append(kinds.session, record);
    return record.session;
  }

  /** Takes a row. @param at rows of the session before it */
  row(session: number, at: number, row: Float64Array, sequence: number): void {
    const gathered = this.gathered.get(session);
    if (!gathered) this.gathered.set(session, { first: at, lastSequence: sequence, rows: [row] });
    else {
      gathered.rows.push(row);
      gathered.lastSequence = sequence;
      if (gathered.rows.length * row.length >= mostValues) this.gather(session);
    }
    this.spool.touch();
  }

  break(session: number, row: number, found: Discontinuity): void {
    this.append(kinds.break, { session, row, found });
  }

  /** A run has begun. Its rows are kept from now on, whenever this reaches the disk. */
  begin(run: NewRun, sources: SourceOfRun[]): void {
    this.index.pin({ run, sources });
    this.append(kinds.begin, { run, sources });
  }

  /** The dyno's part of a run has ended; `end` follows when its loggers have spoken. */
  ending(record: EndingRecord): void {
    this.append(kinds.ending, record);
  }

  /** At once on the disk: somebody waits for the figures. */
  end(record: EndRecord): void {
    this.append(kinds.end, record);
    void this.spool.flush();
  }

  stored(key: string): void {
    this.append(kinds.stored, { key });
    this.index.runs.delete(key);
    void this.tidy();
  }

  closeSession(session: number): void {
    this.append(kinds.closed, { session });
  }

  /** Records that an earlier life had written and that the disk did not give back. */
  get lost(): number {
    return this.spool.lost;
  }

  /** Nothing more can be taken: the disk has refused for so long that memory is full. */
  get full(): boolean {
    return this.spool.waitingBytes > mostWaiting;
  }

  /** Runs that the database does not have yet, in the order they began. */
  get unstored(): KeptRun[] {
    return [...this.index.runs.values()];
  }

  /** Rows of a session on the disk. */
  rowsOf(session: number): number {
    return this.index.sessions.get(session)?.rows ?? 0;
  }

  /** The first row of a session that is still there: those before it have been given up. */
  oldestRow(session: number): number {
    return this.index.oldestRow(session);
  }

  get sessions(): KeptSession[] {
    return [...this.index.sessions.values()];
  }

  /**
   * Rows of a session from the disk, from one on, as they were written
   * together; undefined where none is there yet.
   * @param to the row after the last that is wanted
   */
  async rows(session: number, from: number, to: number): Promise<Float64Array[] | undefined> {
    const extent = this.index.extentFrom(session, from);
    if (!extent || extent.first > from || from >= to) return undefined;
    const { content } = await this.spool.read(extent.place);
    return readRows(content).rows.slice(from - extent.first, to - extent.first);
  }

  /** Settles when all that was taken is on the disk, or cannot be brought there now. */
  flush(): Promise<void> {
    return this.spool.flush();
  }

  freeBytes(): Promise<number> {
    return this.spool.freeBytes();
  }

  close(): Promise<void> {
    return this.spool.close();
  }

  private append(kind: number, record: object): void {
    // In the order things happened: rows first that came before it.
    this.gatherAll();
    this.spool.append(kind, jsonContent(record), writtenTwice.has(kind));
  }

  private gatherAll(): void {
    for (const session of [...this.gathered.keys()]) this.gather(session);
  }

  private gather(session: number): void {
    const gathered = this.gathered.get(session);
    if (!gathered) return;
    this.gathered.delete(session);
    this.spool.append(kinds.rows, rowsContent({ session, ...gathered }));
  }

  /**
   * Gives segments up that no run needs and that are old enough: the oldest
   * first and no other before it, so that what was stored stays said as long as what was begun.
   */
  private async tidy(): Promise<void> {
    const now = performance.now();
    if (this.tidying || now - this.tidiedAt < this.keepMs / 12) return;
    this.tidying = true;
    this.tidiedAt = now;
    try {
      // By when it was closed: a slow instrument's segment is open for long, and its last rows are new.
      const closed = this.spool.segments.filter((segment) => segment < this.spool.segment);
      for (const segment of closed) if (!this.closedAt.has(segment)) this.closedAt.set(segment, now);
      for (const segment of closed) {
        const since = this.closedAt.get(segment) ?? now;
        if (now - since < this.keepMs || this.index.needs(segment)) break;
        this.index.forget(segment);
        this.closedAt.delete(segment);
        await this.spool.release(segment);
      }
    } catch {
      // The folder cannot be tidied now: what is in it is not lost by that, and it is tried again.
    } finally {
      this.tidying = false;
    }
  }
}
