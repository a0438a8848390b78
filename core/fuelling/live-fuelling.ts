import { sampleAt } from '../numerics/sample-at.ts';
import type { FuellingAxes, PartLoadLog } from './axes.ts';
import {
  fitCells,
  fuellingReadings,
  type FuellingReading,
  type FuellingSettings,
  type FuellingTable,
} from './fuelling-table.ts';
import { usualDelay, type ProbeDelay } from './gas-way.ts';

/** Rows closer together than this add nothing, s. */
const leastStepS = 0.019;
/** So much is looked at anew each time, s; what came before is settled. */
const lookedAtS = 60;
/**
 * What is settled ends this long before the newest row, and each look begins this long before that: the probe's memory,
 * s.
 */
const openS = 8;
const beforeS = 4;
/** What is told while driving waits so much longer, s: rows on their way lie a little otherwise than what is stored, and what was called known stays known. */
const marginS = 1;
/** Columns that another instrument has too carry its name before them. */
const plainName = (column: string) => !column.includes(':');

/**
 * A fuelling table that fills while the engine runs. Rows come one by one; what
 * is older than a minute is settled and not looked at again, so that an hour
 * costs no more than a minute.
 */
export class LiveFuelling {
  private rows: Float64Array[] = [];
  private settled: FuellingReading[] = [];
  private settledToS = -Infinity;
  private usedS = 0;

  /** @param columns of the rows, `time` first */
  constructor(
    private readonly columns: readonly string[],
    private readonly axes: FuellingAxes,
    private readonly settings: FuellingSettings,
  ) {}

  push(row: Float64Array): void {
    const last = this.rows.at(-1);
    // A clock that steps back begins another log.
    if (last && sampleAt(row, 0) < sampleAt(last, 0)) this.rows = [];
    if (!last || sampleAt(row, 0) < sampleAt(last, 0) || sampleAt(row, 0) - sampleAt(last, 0) >= leastStepS)
      this.rows.push(row.slice());
  }

  /** Where the engine was last, by a column's name; undefined before the first row. */
  latest(column: string): number | undefined {
    const value = this.rows.at(-1)?.[this.columns.indexOf(column)];
    return value === undefined || Number.isNaN(value) ? undefined : value;
  }

  /** Everything so far. @throws Refusal where no λ or axis comes; undefined before there is anything to look at */
  table(): Pick<FuellingTable, 'axes' | 'cells' | 'delay' | 'usedS'> | undefined {
    if (this.rows.length < 3) return undefined;
    // The delay is not looked for while rows still come: a minute would tell too little of it.
    const delay: ProbeDelay = this.settings.delay ?? usualDelay;
    const now = fuellingReadings(this.log(), this.axes, { ...this.settings, delay });
    const fresh = now.readings.filter(({ fromS }) => fromS >= this.settledToS);
    const readings = [...this.settled, ...fresh];
    const usedS = this.usedS + fresh.reduce((sum, { seconds }) => sum + seconds, 0);
    this.settle(fresh);
    const cells = fitCells(now, readings);
    return {
      axes: this.axes,
      delay,
      usedS,
      cells: cells.map((cell) => ({ ...cell, seconds: Math.max(0, cell.seconds - marginS) })),
    };
  }

  private settle(fresh: readonly FuellingReading[]): void {
    const [oldest, newest] = [this.rows[0], this.rows.at(-1)];
    if (!oldest || !newest || sampleAt(newest, 0) - sampleAt(oldest, 0) < lookedAtS) return;
    const newestS = sampleAt(newest, 0);
    const closed = fresh.filter(({ toS }) => toS < newestS - openS);
    const visits = 1 + Math.max(0, ...this.settled.map(({ visit }) => visit));
    this.settled.push(...closed.map((reading) => ({ ...reading, visit: visits + reading.visit })));
    this.usedS += closed.reduce((sum, { seconds }) => sum + seconds, 0);
    const last = closed.at(-1);
    if (last) this.settledToS = last.toS;
    const keptFromS = Math.min(newestS - openS, last ? last.toS : newestS) - beforeS;
    this.rows = this.rows.filter((row) => sampleAt(row, 0) >= keptFromS);
  }

  private log(): PartLoadLog {
    const { rows, columns } = this;
    const column = (at: number) => Float64Array.from(rows, (row) => sampleAt(row, at));
    const channels = new Map(
      columns.flatMap((name, at) => (at > 0 && plainName(name) ? [[name, column(at)] as const] : [])),
    );
    return {
      time: column(0),
      engineSpeedRpm: channels.get('engineSpeed') ?? new Float64Array(rows.length).fill(NaN),
      channels,
    };
  }
}
