import type { RunLogRecord } from '../../contract/instruments/recording.ts';
import type { Device } from '../devices/device.ts';
import { PreBuffer } from './pre-buffer.ts';

/** Of what a logger said before a pull was noticed a run takes this much more than the dyno's lead, s. */
const marginS = 3;
const bufferS = 30;
/** One that plays something back says that it is ready once it has; without that word, a silence this long ends it, ms. */
const pauseMs = 1500;
/** One whose rows stop for so long, or for three of its own intervals, is not read, ms. */
const silentMs = 500;
/** Fewer rows than these between two words of being ready are no playing back. */
const leastPlayed = 50;

/** Listens to an engine logger, so that its rows go into whatever run is being recorded beside the dyno's. */
export class LoggerTap {
  private readonly buffer = new PreBuffer(bufferS);
  private latestAtMs = performance.now();
  private rowsSinceReady = 0;
  private playedAtMs = -Infinity;

  constructor(readonly device: Device) {
    device.on('row', (row) => {
      this.buffer.push(row);
      this.latestAtMs = performance.now();
      this.rowsSinceReady++;
    });
    device.on('ready', () => {
      if (this.rowsSinceReady >= leastPlayed) this.playedAtMs = performance.now();
      this.rowsSinceReady = 0;
    });
  }

  /**
   * Whether rows up to a time on its own clock have all come. One that plays
   * something back may lie far behind or ahead of the dyno: it has said
   * everything once it has played since the run was asked for and is ready again.
   *
   * @param askedMs when that was, of the process's clock
   */
  hasReached(timeS: number, askedMs: number): boolean {
    if (!this.device.connected) return true;
    if (this.device.playsFast) {
      const played = this.rowsSinceReady === 0 && this.playedAtMs > askedMs;
      return played || performance.now() - this.latestAtMs > pauseMs;
    }
    return (this.latest?.[0] ?? 0) >= timeS;
  }

  /** Whether its rows go on: what it said last stands for now. */
  get reads(): boolean {
    const { device } = this;
    return device.heard && performance.now() - this.latestAtMs <= device.threeIntervalsMs(silentMs);
  }

  /** The newest row, time on the logger's own clock first. */
  get latest(): Float64Array | undefined {
    return this.buffer.latest;
  }

  /** The row of so many seconds ago. */
  back(seconds: number): Float64Array | undefined {
    return this.latest && this.buffer.since(this.latest[0]! - seconds)[0];
  }

  /** What a run writes down of it. */
  record(source: number): RunLogRecord {
    const { hello, intake, settings } = this.device;
    return {
      source,
      device: hello.device,
      name: hello.name ?? hello.device,
      channels: intake.channels,
      probe: settings.probe,
    };
  }

  /** The row of its session from which on it belongs to a run that began so many seconds ago. */
  rowBack(seconds: number): number {
    const latestS = this.latest?.[0] ?? 0;
    // Played back, it may be ahead by more than any margin: all that is kept is taken.
    const since = this.device.playsFast ? -Infinity : latestS - seconds - marginS;
    return this.device.rows - this.buffer.since(since).length;
  }
}
