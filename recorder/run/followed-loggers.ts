import type { RunLogRecord } from '../../contract/instruments/recording.ts';
import type { LoggerTap } from './logger-tap.ts';
import type { SourceOfRun } from '../spool/records.ts';

/**
 * So long the end of a logger's rows is waited for once the dyno's have come, and longer where it is played back; but
 * never longer than this after the dyno's last row, ms.
 */
const waitsMs = { live: 400, played: 6000, sinceLastRow: 14_000 };
const lookEveryMs = 10;

interface Followed {
  session: number;
  /** The first row of its session that belongs to the run. */
  from: number;
  /** Its newest row when the run was noticed, on its own clock, s. */
  latestS: number;
  /** Undefined where it has gone since: then it has so many rows, and no more will come. */
  tap: LoggerTap | undefined;
  rows: number;
}

/** The engine loggers that a run follows: which of their rows belong to it. */
export class FollowedLoggers {
  private constructor(private readonly followed: readonly Followed[]) {}

  /**
   * Begins to follow those loggers that have said anything.
   * @param leadS how far back the run begins, s
   * @param oldestRow of a session: those before it are not on the disk any more
   */
  static from(taps: readonly LoggerTap[], leadS: number, oldestRow: (session: number) => number): FollowedLoggers {
    const heard = taps.flatMap((tap) => (tap.latest ? [{ tap, latestS: tap.latest[0]! }] : []));
    return new FollowedLoggers(
      heard.map(({ tap, latestS }) => ({
        session: tap.device.session,
        from: Math.max(tap.rowBack(leadS), oldestRow(tap.device.session)),
        latestS,
        tap,
        rows: 0,
      })),
    );
  }

  /**
   * Goes on following those of a run that an earlier life of the recorder began; what has come of them is taken as it is.
   * @param rowsOf how many rows a session has
   */
  static again(
    taps: readonly LoggerTap[],
    sources: readonly SourceOfRun[],
    rowsOf: (session: number) => number,
  ): FollowedLoggers {
    return new FollowedLoggers(
      sources.map(({ session, from }) => ({
        session,
        from,
        latestS: -Infinity,
        tap: taps.find(({ device }) => device.session === session),
        rows: rowsOf(session),
      })),
    );
  }

  get taps(): LoggerTap[] {
    return this.followed.flatMap(({ tap }) => tap ?? []);
  }

  /** None is followed: nothing is waited for at the end. */
  get none(): boolean {
    return this.followed.length === 0;
  }

  /** What the run writes down of them. */
  records(): RunLogRecord[] {
    return this.taps.map((tap, index) => tap.record(index + 1));
  }

  /** Where their rows are. Sources count from 1. */
  sources(): SourceOfRun[] {
    return this.followed.map(({ session, from }, index) => ({ source: index + 1, session, from }));
  }

  /**
   * Waits until every logger has said what it read up to the end of the run, a little and no longer.
   * @param ranS how long the run went on after it was noticed, s
   * @param askedMs when it was announced, or noticed, of the process's clock
   * @param lastRowMs when the dyno's last row came, of the same
   * @returns for each, the row after the last that belongs to the run
   */
  async arrived(ranS: number, askedMs: number, lastRowMs: number): Promise<number[]> {
    const played = this.taps.some(({ device }) => device.playsFast);
    const patience = performance.now() + (played ? waitsMs.played : waitsMs.live);
    const deadline = Math.min(patience, lastRowMs + waitsMs.sinceLastRow);
    const behind = () => this.followed.some(({ tap, latestS }) => tap && !tap.hasReached(latestS + ranS, askedMs));
    while (behind() && performance.now() < deadline) await new Promise((resolve) => setTimeout(resolve, lookEveryMs));
    return this.rowsNow();
  }

  /** For each, the row after the last that has come. */
  rowsNow(): number[] {
    return this.followed.map(({ tap, rows }) => tap?.device.rows ?? rows);
  }
}
