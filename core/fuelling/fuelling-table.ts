import { sampleAt } from '../numerics/sample-at.ts';
import { Refusal } from '../refusal.ts';
import { channelLabel } from '../recording/channels.ts';
import {
  axisReadings,
  cellCount,
  dealerOf,
  noShares,
  type Dealing,
  type FuellingAxes,
  type FuellingAxis,
  type PartLoadLog,
} from './axes.ts';
import { blockS, fitCorners, type Block, type FittedCell } from './corner-fit.ts';
import { mixtureSeries, usualMixture, type MixtureSeries, type MixtureSettings } from './mixture.ts';
import { between, sourceOf, usualDelay, type ProbeDelay } from './gas-way.ts';
import { probeDelay, type FoundDelay } from './probe-delay.ts';
import { codeOf, faultyReadings, keptOutFor, steadySamples, type KeptOutFor } from './steady.ts';

export interface FuellingSettings {
  mixture: MixtureSettings;
  dealing: Dealing;
  /** Typed, or found in the data where this is null. */
  delay: ProbeDelay | null;
}
export const usualFuelling: FuellingSettings = { mixture: usualMixture, dealing: { by: 'corners' }, delay: null };

/** Where the delay that was used comes from. */
export type DelayFrom = 'typed' | 'found' | 'usual';

/** What a log tells of a table, before its cells are fitted. */
export interface FuellingReadings {
  axes: FuellingAxes;
  dealing: Dealing;
  delay: ProbeDelay;
  delayFrom: DelayFrom;
  /** What the data says of it, known or not; null where it could not be looked for. */
  foundDelay: FoundDelay | null;
  /** Time of the log that was used, and that was kept out for each reason, s. */
  usedS: number;
  keptOutS: Partial<Record<KeptOutFor, number>>;
  readings: FuellingReading[];
}

/** Fuelling errors over a table's cells, with what they rest on. */
export interface FuellingTable extends FuellingReadings {
  /** In rows; cell = row · columns + column. */
  cells: FittedCell[];
}

/** One block's mean as it was read, for the look at a cell's own readings. */
export interface FuellingReading extends Block {
  /** When its readings were taken, s of the log. */
  fromS: number;
  toS: number;
}

/** After a hold begins the controller needs so long, s; the probe four of its lags beside that. */
const controllerS = 0.4;
const lagsToSettle = 5;
/** Shorter blocks are none, s. */
const leastBlockS = 0.2;
/** A gap in the readings this long ends a block, s. */
const gapS = 0.25;

/**
 * Fuelling errors of a log over a table: positive is lean, so much more fuel is
 * needed. error = (λ ÷ target)·(1 + short)·(1 + long) − 1, with target, trims and
 * cell taken from when the gas left the engine.
 * Only what was driven steadily counts (core/fuelling/steady.ts).
 *
 * @throws Refusal where the log lacks λ or an axis
 */
export function fuellingTable(
  log: PartLoadLog,
  axes: FuellingAxes,
  settings: FuellingSettings = usualFuelling,
): FuellingTable {
  return fitted(fuellingReadings(log, axes, settings));
}

/** The cells of a table from its readings. */
const fitted = (told: FuellingReadings): FuellingTable => ({ ...told, cells: fitCells(told, told.readings) });

/** The cells from some readings of a table. */
export const fitCells = (
  { axes, dealing }: Pick<FuellingReadings, 'axes' | 'dealing'>,
  readings: readonly FuellingReading[],
): FittedCell[] => fitCorners(axes, readings, dealing.by === 'corners');

/** The same without its cells, for whoever has more readings to fit them from. @throws Refusal, as `fuellingTable` does */
export function fuellingReadings(log: PartLoadLog, axes: FuellingAxes, settings: FuellingSettings): FuellingReadings {
  const mixture = mixtureSeries(log, settings.mixture);
  if (!mixture) throw new Refusal('The log holds no λ, so no fuelling error can be told from it.');
  const x = readingsOf(log, axes.across);
  const y = axes.down ? readingsOf(log, axes.down) : undefined;
  const faulty = faultyReadings(log, mixture.target);
  const foundDelay = settings.delay ? null : (probeDelay(log, axes, mixture, faulty) ?? null);
  const delayFrom: DelayFrom = settings.delay ? 'typed' : foundDelay?.known ? 'found' : 'usual';
  const delay = settings.delay ?? (foundDelay?.known ? foundDelay : usualDelay);
  const { readings, keptOutS, usedS } = blocksOf(log, axes, { x, y, ...mixture }, settings.dealing, delay, faulty);
  return {
    axes,
    dealing: settings.dealing,
    delay: { transportS: delay.transportS, lagS: delay.lagS },
    delayFrom,
    foundDelay,
    usedS,
    keptOutS,
    readings,
  };
}

function readingsOf(log: PartLoadLog, { channel }: FuellingAxis): Float64Array {
  const readings = axisReadings(log, channel);
  if (readings) return readings;
  throw new Refusal(
    `The log holds no ${channel === 'airMassPerCycle' ? 'air mass flow' : channelLabel(channel)}, which the table is laid over: choose another axis.`,
  );
}

/** Errors of several logs of one state of the table together. @param parts over the same axes */
export function joinedFuelling(parts: readonly FuellingReadings[]): FuellingTable | undefined {
  const [first] = parts;
  if (!first) return undefined;
  let visit = 0;
  const readings = parts.flatMap((part) => {
    const base = visit;
    return part.readings.map((reading) => {
      visit = Math.max(visit, base + reading.visit + 1);
      return { ...reading, visit: base + reading.visit };
    });
  });
  const keptOutS: FuellingReadings['keptOutS'] = {};
  for (const part of parts)
    for (const reason of keptOutFor) {
      const seconds = part.keptOutS[reason];
      if (seconds) keptOutS[reason] = (keptOutS[reason] ?? 0) + seconds;
    }
  return fitted({
    ...first,
    usedS: parts.reduce((sum, { usedS }) => sum + usedS, 0),
    keptOutS,
    readings,
  });
}

function blocksOf(
  log: PartLoadLog,
  axes: FuellingAxes,
  mixture: MixtureSeries & { x: Float64Array; y: Float64Array | undefined },
  dealing: Dealing,
  delay: ProbeDelay,
  faulty: Uint8Array,
): Pick<FuellingTable, 'readings' | 'keptOutS' | 'usedS'> {
  const { time } = log;
  const { x, y } = mixture;
  const steady = steadySamples(log, axes);
  const source = sourceOf(time, mixture.flow, delay.transportS);
  const settledAfterS = controllerS + lagsToSettle * delay.lagS;
  const steadySince = sinceWhen(time, steady);
  const soundSince = sinceWhen(
    time,
    faulty.map((code) => (code === 0 ? 1 : 0)),
  );
  const deal = dealerOf(axes, dealing);
  const shares = noShares();
  const collector = new BlockCollector(cellCount(axes));
  const keptOut = new Float64Array(keptOutFor.length);
  const step = time.length > 1 ? (sampleAt(time, time.length - 1) - sampleAt(time, 0)) / (time.length - 1) : 0;
  for (let index = 0; index < time.length; index++) {
    const code = verdict(index);
    keptOut[code]! += step;
    if (code !== 0) {
      collector.end();
      continue;
    }
    const at = sampleAt(source, index);
    const error = (sampleAt(mixture.lambda, index) / between(mixture.target, at)) * between(mixture.trim, at) - 1;
    collector.add(sampleAt(time, index), step, error, shares);
  }
  collector.end();
  return {
    readings: collector.readings,
    usedS: sampleAt(keptOut, 0),
    keptOutS: Object.fromEntries(
      keptOutFor.flatMap((reason, code) =>
        code > 0 && sampleAt(keptOut, code) > 0 ? [[reason, sampleAt(keptOut, code)]] : [],
      ),
    ),
  };

  /** 0 where the sample is used, and its shares are then those of its cells. */
  function verdict(index: number): number {
    if (faulty[index] !== 0) return faulty[index]!;
    const at = sampleAt(source, index);
    if (Number.isNaN(at)) return codeOf('settling');
    const left = Math.round(at);
    if (faulty[left] !== 0) return faulty[left]!;
    if (steady[left] !== 1) return codeOf('transient');
    const leftS = sampleAt(time, left);
    if (leftS - sampleAt(steadySince, left) < settledAfterS || leftS - sampleAt(soundSince, left) < settledAfterS)
      return codeOf('settling');
    // Averages over the probe's memory stand for the place that the gas came from.
    deal(between(x, at), y ? between(y, at) : 0, shares);
    return shares.count === 0 ? codeOf('off the table') : 0;
  }
}

/** For each sample, since when what is asked has held without a break, s; the sample's own time where it does not. */
function sinceWhen(time: Float64Array, holds: Uint8Array): Float64Array {
  const since = new Float64Array(time.length);
  for (let index = 0; index < time.length; index++)
    since[index] =
      index > 0 && holds[index] === 1 && holds[index - 1] === 1 ? sampleAt(since, index - 1) : sampleAt(time, index);
  return since;
}

/** Gathers readings that follow each other into blocks. */
class BlockCollector {
  readonly readings: FuellingReading[] = [];
  private visit = 0;
  private samples = 0;
  private seconds = 0;
  private error = 0;
  private fromS = 0;
  private lastS = 0;
  private readonly shares: Float64Array;
  private readonly touched = new Set<number>();

  constructor(cells: number) {
    this.shares = new Float64Array(cells);
  }

  add(timeS: number, stepS: number, error: number, { cells, shares, count }: ReturnType<typeof noShares>): void {
    if (this.samples > 0 && timeS - this.lastS > gapS) this.end();
    if (this.samples === 0) this.fromS = timeS;
    for (let place = 0; place < count; place++) {
      this.touched.add(cells[place]!);
      this.shares[cells[place]!]! += sampleAt(shares, place);
    }
    this.samples++;
    this.seconds += stepS;
    this.error += error;
    this.lastS = timeS;
    if (this.seconds >= blockS) this.close();
  }

  /** What follows is another visit. */
  end(): void {
    this.close();
    this.visit++;
  }

  private close(): void {
    if (this.samples > 0 && this.seconds >= leastBlockS) {
      const cells = Array.from(this.touched);
      this.readings.push({
        error: this.error / this.samples,
        cells,
        shares: cells.map((cell) => sampleAt(this.shares, cell) / this.samples),
        samples: this.samples,
        seconds: this.seconds,
        visit: this.visit,
        fromS: this.fromS,
        toS: this.lastS,
      });
    }
    for (const cell of this.touched) this.shares[cell] = 0;
    this.touched.clear();
    this.samples = this.seconds = this.error = 0;
  }
}
