import type { Device } from '../devices/device.ts';
import type { LoggerTap } from '../run/logger-tap.ts';

/**
 * What pages see while samples come: the dyno's rows, and beside each the
 * newest reading of every logger that goes on speaking, whatever its clock says. A channel that the
 * dyno has too stands under `device:name`. Recordings keep both apart.
 */
export class LiveRows {
  columns: string[] = ['time'];
  private sources: { tap: LoggerTap; width: number }[] = [];

  show(dyno: Device, loggers: readonly LoggerTap[]): void {
    const columns = ['time', ...dyno.intake.channels.map(({ name }) => name)];
    this.sources = loggers.map((tap) => ({ tap, width: tap.device.intake.channels.length }));
    for (const { device } of loggers) {
      for (const { name } of device.intake.channels)
        columns.push(columns.includes(name) ? `${device.hello.device}:${name}` : name);
    }
    this.columns = columns;
  }

  of(row: Float64Array): Float64Array {
    if (this.sources.length === 0) return row;
    const joined = new Float64Array(this.columns.length).fill(NaN);
    joined.set(row);
    let at = row.length;
    for (const { tap, width } of this.sources) {
      if (tap.latest && tap.reads) joined.set(tap.latest.subarray(1), at);
      at += width;
    }
    return joined;
  }
}
