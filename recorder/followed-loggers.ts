import type { RunLogRecord } from '../contract/recording.ts';
import type { LoggerTap } from './logger-tap.ts';

/** So long the end of a logger's rows is waited for once the dyno's have come; longer where it is played back, ms. */
const waitsMs = { live: 400, played: 6000 };
const lookEveryMs = 10;

/** The engine loggers that a run follows: their rows go where the run's go until it has ended. */
export class FollowedLoggers {
  private readonly followed: { tap: LoggerTap; latestS: number; rows: Float64Array[]; stop: () => void }[];

  /**
   * Begins to follow those loggers that have said anything.
   * @param leadS how far back the run begins, s
   * @param onRows takes rows of a source; sources count from 1
   */
  constructor(
    taps: readonly LoggerTap[],
    leadS: number,
    private readonly onRows: (rows: Float64Array[], source: number) => void,
  ) {
    const heard = taps.flatMap((tap) => (tap.latest ? [{ tap, latestS: tap.latest[0]! }] : []));
    this.followed = heard.map(({ tap, latestS }, index) => ({
      tap,
      latestS,
      ...tap.follow(leadS, (row) => onRows([row], index + 1)),
    }));
  }

  get taps(): LoggerTap[] {
    return this.followed.map(({ tap }) => tap);
  }

  /** What the run writes down of them. */
  records(): RunLogRecord[] {
    return this.followed.map(({ tap }, index) => tap.record(index + 1));
  }

  /** Hands over what they said before the run was noticed. */
  handOverEarlier(): void {
    for (const [index, { rows }] of this.followed.entries()) this.onRows(rows, index + 1);
  }

  /**
   * Waits until every logger has said what it read up to the end of the run,
   * a little and no longer, and follows them no more.
   * @param ranS how long the run went on after it was noticed, s
   * @param askedMs when it was announced, or noticed, of the process's clock
   */
  async arrived(ranS: number, askedMs: number): Promise<void> {
    const played = this.followed.some(({ tap }) => tap.device.playsFast);
    const deadline = performance.now() + (played ? waitsMs.played : waitsMs.live);
    const behind = () => this.followed.some(({ tap, latestS }) => !tap.hasReached(latestS + ranS, askedMs));
    while (behind() && performance.now() < deadline) await new Promise((resolve) => setTimeout(resolve, lookEveryMs));
    for (const { stop } of this.followed) stop();
  }
}
