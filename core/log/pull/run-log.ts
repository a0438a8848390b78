import type { EngineKind } from '../../engine/engine-kind.ts';
import { sampleAt } from '../../numerics/sample-at.ts';
import type { Sentence, Quantity } from '../../sentence/sentence.ts';
import { medianOf } from '../../numerics/quantile.ts';
import type { Severity } from '../../checks/check.ts';
import type { BrokenLimit } from '../../limits/broken-limits.ts';
import type { LimitQuantity } from '../../limits/limit.ts';
import { stoichiometricOf } from '../../fuel/blend.ts';

/** A run's logged channels on one clock, and what is known of the engine when they are judged. */
export interface RunLog {
  /** s, rising. */
  time: Float64Array;
  engineSpeedRpm: Float64Array;
  /** By the names of core/recording/channels.ts, in their units; NaN where nothing was read. */
  channels: ReadonlyMap<string, Float64Array>;
  /** The pull at full throttle, s; judged outside of it is only what concerns the whole run. */
  startS: number;
  endS: number;
  engine: LoggedEngine;
}

export interface LoggedEngine {
  ignition: EngineKind | null;
  boosted: boolean;
  /** What the car's fuel pressure regulator holds constant; null where nobody said. */
  fuelRegulation?: FuelRegulation | null;
  /** Percent by volume; null when not known. */
  ethanolPct: number | null;
  /** Limits written for this job, by quantity: they come before what is usual. */
  limits: Readonly<Partial<Record<string, number>>>;
}

/** The engine of which nobody said anything: used where only the log itself is looked at. */
export const unknownEngine: LoggedEngine = { ignition: null, boosted: false, ethanolPct: null, limits: {} };

/** Rail pressure less the manifold's, the gauge pressure of a returnless system, or what a target says. */
export type FuelRegulation = 'manifold' | 'constant' | 'target';

/** A log with the limits that it went beyond: what a check says of a limit rests on these. */
export interface JudgedLog extends RunLog {
  broken: ReadonlyMap<LimitQuantity, BrokenLimit>;
}

/** Something that happened in the log, where, the figure it rests on, and the channels that explain it. */
export interface LogEvent {
  id: string;
  /** Two or three words for its mark on a strip; the whole sentence is the message. */
  name: string;
  severity: Severity;
  fromS: number;
  toS: number;
  fromRpm: number;
  toRpm: number;
  figure: number;
  unit: string;
  message: Sentence;
  channels: readonly string[];
  /** The broken limit that it tells of. */
  limit?: LimitQuantity;
}

/** After the throttle opens probes and pressures need so long, s. */
export const settlingS = 0.5;

/** First and last sample of the pull. */
export function pullOf({ time, startS, endS }: RunLog): readonly [number, number] {
  let first = 0;
  while (first < time.length && sampleAt(time, first) < startS) first++;
  let last = time.length - 1;
  while (last > first && sampleAt(time, last) > endS) last--;
  return [first, last];
}

/** A stretch of samples, both ends included. */
export interface Stretch {
  from: number;
  to: number;
}

/**
 * Stretches of the pull in which something holds for a while.
 * @param leastS shorter ones are left out, s
 * @param bridgedS breaks up to this long do not end one, s
 */
export function stretches(log: RunLog, holds: (index: number) => boolean, leastS: number, bridgedS = 0.06): Stretch[] {
  const { time } = log;
  const [first, last] = pullOf(log);
  const found: Stretch[] = [];
  for (let index = first; index <= last; index++) {
    if (!holds(index)) continue;
    const before = found.at(-1);
    if (before && sampleAt(time, index) - sampleAt(time, before.to) <= bridgedS + stepOf(log)) before.to = index;
    else found.push({ from: index, to: index });
  }
  return found.filter(({ from, to }) => sampleAt(time, to) - sampleAt(time, from) + stepOf(log) >= leastS);
}

/** Usual time between samples, s. */
export function stepOf({ time }: RunLog): number {
  return time.length > 1 ? (sampleAt(time, time.length - 1) - sampleAt(time, 0)) / (time.length - 1) : 0;
}

type EventPlace = Pick<LogEvent, 'fromS' | 'toS' | 'fromRpm' | 'toRpm'>;

/** What is said of an event; where its place is said, made of that. */
interface EventSaid extends Omit<LogEvent, keyof EventPlace | 'message'> {
  message: LogEvent['message'] | ((place: EventPlace) => LogEvent['message']);
}

/** An event over a stretch, its place filled in: engine speeds to 10 rpm. */
export function eventAt({ time, engineSpeedRpm }: RunLog, { from, to }: Stretch, said: EventSaid): LogEvent {
  const tens = (rpm: number) => Math.round(rpm / 10) * 10;
  const place = {
    fromS: sampleAt(time, from),
    toS: sampleAt(time, to),
    fromRpm: tens(sampleAt(engineSpeedRpm, from)),
    toRpm: tens(sampleAt(engineSpeedRpm, to)),
  };
  return { ...said, ...place, message: typeof said.message === 'function' ? said.message(place) : said.message };
}

/** The highest value of a stretch; NaN where it holds none. */
export function highest(values: Float64Array, { from, to }: Stretch): number {
  let most = NaN;
  for (let index = from; index <= to; index++)
    if (!(sampleAt(values, index) <= most) && !Number.isNaN(sampleAt(values, index))) most = sampleAt(values, index);
  return most;
}

/** The highest value of the pull up to each sample; NaN outside of it, and before anything was read -Infinity. */
export function highestSoFar(log: RunLog, values: Float64Array): Float64Array {
  const [first, last] = pullOf(log);
  const reached = new Float64Array(values.length).fill(NaN);
  let most = -Infinity;
  for (let index = first; index <= last; index++) {
    if (sampleAt(values, index) > most) most = sampleAt(values, index);
    reached[index] = most;
  }
  return reached;
}

/** Medians of what was read in the first and in the last third of the pull: how far a reading that should rest has moved. */
export function thirdsOf(log: RunLog, values: Float64Array): readonly [first: number, last: number] {
  const [first, last] = pullOf(log);
  const third = Math.floor((last - first) / 3);
  const median = (from: number, to: number) =>
    medianOf(values.subarray(from, to + 1).filter((value) => !Number.isNaN(value)));
  return [median(first, first + third), median(last - third, last)];
}

/**
 * A quantity that is judged in a log: a channel, engine speed, or one that is made of channels
 * (`fuelTrim`: what both trims add or take together, %, either way). Undefined where it was not logged.
 */
export function channelOf(
  { channels, engineSpeedRpm }: Pick<RunLog, 'channels' | 'engineSpeedRpm'>,
  name: string,
): Float64Array | undefined {
  if (name === 'engineSpeed') return engineSpeedRpm;
  if (name !== 'fuelTrim') return channels.get(name);
  const [long, short] = [channels.get('fuelTrimLong'), channels.get('fuelTrimShort')];
  const trim = long ?? short;
  return trim?.map((_, index) => Math.abs((long?.[index] ?? 0) + (short?.[index] ?? 0)));
}

/** A reading of λ that readers may be told as an air–fuel ratio of what this run burnt. */
export function mixtureOf({ engine }: Pick<RunLog, 'engine'>, lambda: number): Quantity {
  return {
    value: lambda,
    unit: 'λ',
    stoichiometric: stoichiometricOf(engine.ignition, engine.ethanolPct).ratio,
    named: true,
  };
}
