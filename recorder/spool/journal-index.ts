import {
  beginRecord,
  breakRecord,
  closedRecord,
  endingRecord,
  endRecord,
  jsonContent,
  kinds,
  readJson,
  rowsHead,
  sessionRecord,
  storedRecord,
  type BeginRecord,
  type Discontinuity,
  type EndingRecord,
  type EndRecord,
  type SessionRecord,
} from './records.ts';
import type { Place, SpoolRecord } from './segment.ts';

/** Rows that were written together: `count` from `first` on. */
interface Extent {
  first: number;
  count: number;
  place: Place;
}

/** A session as far as it is safe on the disk. */
export interface KeptSession extends SessionRecord {
  closed: boolean;
  extents: Extent[];
  breaks: { row: number; found: Discontinuity }[];
}

/** A run that the database does not have whole. */
export interface KeptRun extends BeginRecord {
  ending: EndingRecord | undefined;
  end: EndRecord | undefined;
}

/** Said of a run that a death of the recorder ended. */
export const stoppedRemark = 'The recorder stopped during this run. Everything that had arrived was kept.';

/** What the spool holds, told from its safe records alone: what a later life would find. */
export class JournalIndex {
  readonly sessions = new Map<number, KeptSession>();
  /** In the order they began. */
  readonly runs = new Map<string, KeptRun>();
  /** Begun, and not yet safe: their rows are needed from the first moment. */
  private readonly beginning = new Map<string, BeginRecord>();
  private readonly storedKeys = new Set<string>();
  private readonly safeNow = new Map<number, number>();
  private latestSession = 0;

  nextSession(): number {
    return ++this.latestSession;
  }

  /** The last frame number of every session that has got rows since the last call. */
  newlySafe(): [session: number, sequence: number][] {
    const all = [...this.safeNow];
    this.safeNow.clear();
    return all;
  }

  /** Takes a record that is on the disk; a checkpoint's copies say what was said before. */
  take({ kind, content }: SpoolRecord, place: Place): void {
    switch (kind) {
      case kinds.session:
        return this.takeSession(readJson(sessionRecord, content));
      case kinds.rows:
        return this.takeRows(content, place);
      case kinds.break: {
        const { session, ...found } = readJson(breakRecord, content);
        this.sessions.get(session)?.breaks.push(found);
        return;
      }
      case kinds.begin: {
        const begun = readJson(beginRecord, content);
        this.beginning.delete(begun.run.key);
        if (!this.storedKeys.has(begun.run.key) && !this.runs.has(begun.run.key))
          this.runs.set(begun.run.key, { ...begun, ending: undefined, end: undefined });
        return;
      }
      case kinds.ending: {
        const ending = readJson(endingRecord, content);
        const run = this.runs.get(ending.key);
        if (run) run.ending = ending;
        return this.done(run, ending.to);
      }
      case kinds.end: {
        const end = readJson(endRecord, content);
        const run = this.runs.get(end.key);
        if (run) run.end = end;
        return this.done(run, end.to[0] ?? 0);
      }
      case kinds.stored: {
        const { key } = readJson(storedRecord, content);
        this.storedKeys.add(key);
        this.runs.delete(key);
        return;
      }
      case kinds.closed: {
        const session = this.sessions.get(readJson(closedRecord, content).session);
        if (session) session.closed = true;
      }
    }
  }

  /** Rows of a run's dyno up to one belong to runs that have ended. */
  private done(run: KeptRun | undefined, to: number): void {
    const session = run && this.sessions.get(run.sources[0]?.session ?? -1);
    if (session) session.doneTo = Math.max(session.doneTo, to);
  }

  private takeSession(record: SessionRecord): void {
    this.latestSession = Math.max(this.latestSession, record.session);
    const known = this.sessions.get(record.session);
    if (!known) this.sessions.set(record.session, { ...record, closed: false, extents: [], breaks: [] });
    else {
      known.rows = Math.max(known.rows, record.rows);
      known.lastSequence = record.lastSequence ?? known.lastSequence;
      known.doneTo = Math.max(known.doneTo, record.doneTo);
    }
  }

  private takeRows(content: Buffer, place: Place): void {
    const { session: number, first, lastSequence, count } = rowsHead(content);
    const session = this.sessions.get(number);
    // Written twice after a failed sync.
    if (!session || first < (session.extents.at(-1)?.first ?? -1)) return;
    session.extents.push({ first, count, place });
    session.rows = Math.max(session.rows, first + count);
    session.lastSequence = lastSequence;
    this.safeNow.set(number, lastSequence);
  }

  /**
   * Takes stock after a death.
   * @returns ends, with the rows that are there, of runs that nobody goes on with: those whose loggers alone were
   * still waited for, and those whose dyno's session is over and whose end did not reach the disk
   */
  afterRestart(): EndRecord[] {
    this.safeNow.clear();
    return [...this.runs.values()].flatMap(({ run: { key }, end, ending, sources }) => {
      const [dyno, ...loggers] = sources;
      const session = dyno && this.sessions.get(dyno.session);
      if (end || (!ending && session && !session.closed)) return [];
      const rows = (of: number) => this.sessions.get(of)?.rows ?? 0;
      const ended = ending ?? { key, as: 'interrupted' as const, remarks: [stoppedRemark], to: session?.rows ?? 0 };
      return [{ ...ended, to: [ended.to, ...loggers.map((logger) => rows(logger.session))] }];
    });
  }

  /** A run has begun: from now on its rows are kept, though its beginning is not on the disk yet. */
  pin(begun: BeginRecord): void {
    this.beginning.set(begun.run.key, begun);
  }

  /** The first row of a session that is still there, on the disk or on its way to it. */
  oldestRow(number: number): number {
    const session = this.sessions.get(number);
    return session?.extents[0]?.first ?? session?.rows ?? 0;
  }

  /** What a later segment repeats, so that the ones before it are needed for rows alone. */
  checkpoint(): { kind: number; content: Buffer }[] {
    const sessions = [...this.sessions.values()].filter((session) => !session.closed || this.isUsed(session.session));
    return [
      ...sessions.map(({ session, hello, settings, rows, lastSequence, doneTo }) => ({
        kind: kinds.session,
        content: jsonContent({ session, hello, settings, rows, lastSequence, doneTo } satisfies SessionRecord),
      })),
      ...sessions
        .filter(({ closed }) => closed)
        .map(({ session }) => ({ kind: kinds.closed, content: jsonContent({ session }) })),
      ...[...this.runs.values()].flatMap(({ ending, end, ...begun }) => [
        { kind: kinds.begin, content: jsonContent(begun) },
        ...(ending ? [{ kind: kinds.ending, content: jsonContent(ending) }] : []),
        ...(end ? [{ kind: kinds.end, content: jsonContent(end) }] : []),
      ]),
    ];
  }

  /** The rows written together among which one is, or else the first that come after it. */
  extentFrom(session: number, row: number): Extent | undefined {
    const extents = this.sessions.get(session)?.extents ?? [];
    let [low, high] = [0, extents.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (extents[middle]!.first + extents[middle]!.count <= row) low = middle + 1;
      else high = middle;
    }
    return extents[low];
  }

  /** Whether rows that a run needs lie in a segment. */
  needs(segment: number): boolean {
    for (const { sources, end } of this.kept()) {
      for (const [at, { session, from }] of sources.entries()) {
        const to = end?.to[at] ?? Infinity;
        const extents = this.sessions.get(session)?.extents ?? [];
        if (extents.some(({ first, count, place }) => place.segment === segment && first < to && first + count > from))
          return true;
      }
    }
    return false;
  }

  /** A segment has been given up. */
  forget(segment: number): void {
    for (const [number, session] of this.sessions) {
      session.extents = session.extents.filter(({ place }) => place.segment !== segment);
      const [oldest] = session.extents;
      session.breaks = session.breaks.filter(({ row }) => row >= (oldest?.first ?? session.rows));
      if (session.closed && session.extents.length === 0 && !this.isUsed(number)) this.sessions.delete(number);
    }
  }

  /** Runs whose rows are needed. */
  private kept(): Pick<KeptRun, 'sources' | 'end'>[] {
    const beginning = [...this.beginning.values()].map(({ sources }) => ({ sources, end: undefined }));
    return [...this.runs.values(), ...beginning];
  }

  private isUsed(number: number): boolean {
    return this.kept().some(({ sources }) => sources.some(({ session }) => session === number));
  }
}
