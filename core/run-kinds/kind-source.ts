import { sampleAt } from '../numerics/sample-at.ts';
import { firstNotBelow } from '../numerics/interpolation.ts';
import { meanOf } from '../numerics/mean.ts';
import { medianOf } from '../numerics/quantile.ts';
import type { Recording } from '../recording/recording.ts';
import { valuesOf } from '../recording/recording.ts';
import { Refusal } from '../refusal.ts';

/** A run with all that recorded it, each on its own clock: nothing here needs them laid on one. */
export interface KindSource {
  /** The dyno's own. */
  own: Recording;
  /** Of loggers beside it. */
  beside: readonly Recording[];
}

/** Channels that one instrument recorded together: `time` in s, the others by their names. */
export type Logged<Name extends string> = Record<Name, Float64Array> & { time: Float64Array };

/** Channels that one recording holds together; where several do, a logger's: its channels are the engine's own. */
export function loggedTogether<Name extends string>(
  { own, beside }: KindSource,
  ...names: readonly Name[]
): Logged<Name> | undefined {
  for (const recording of [...beside, own]) {
    const found = names.flatMap((name) => {
      const values = valuesOf(recording, name);
      return values ? [[name, values] as const] : [];
    });
    if (found.length === names.length) return Object.fromEntries([['time', recording.time], ...found]) as Logged<Name>;
  }
  return undefined;
}

/** @param what they are, in words @throws Refusal where nothing holds them */
export function neededTogether<Name extends string>(
  source: KindSource,
  what: string,
  ...names: readonly Name[]
): Logged<Name> {
  const found = loggedTogether(source, ...names);
  if (found) return found;
  throw new Refusal(`Nothing that recorded this run logged ${what}, so it has no figures.`);
}

/** Readings from a time to another (excluded), s; what was not read left out. */
export function between(time: Float64Array, values: Float64Array, fromS: number, toS: number): Float64Array {
  return values.subarray(firstNotBelow(time, fromS), firstNotBelow(time, toS)).filter((value) => !Number.isNaN(value));
}

/** Of a recording's own clock, s. */
export interface Stretch {
  fromS: number;
  toS: number;
}

/**
 * The longest stretch in which means of a reading stay near its middle value.
 * @param share how near, as a share of it
 * @param spanS the means are over so long, s
 */
export function longestSteady(time: Float64Array, values: Float64Array, share: number, spanS: number): Stretch {
  const usual = medianOf(values.filter((value) => !Number.isNaN(value)));
  let best: Stretch = { fromS: sampleAt(time, 0), toS: sampleAt(time, 0) };
  let fromS: number | undefined;
  for (let at = sampleAt(time, 0); at + spanS <= sampleAt(time, time.length - 1) + 1e-6; at += spanS / 2) {
    const near = Math.abs(meanOf(between(time, values, at, at + spanS)) / usual - 1) <= share;
    if (!near) fromS = undefined;
    else {
      fromS ??= at;
      if (at + spanS - fromS > best.toS - best.fromS) best = { fromS, toS: at + spanS };
    }
  }
  return best;
}

/** A logger's recording with what its λ probe reads too lean taken off. */
export function withoutOffset(logged: Recording, offset: number): Recording {
  if (offset === 0) return logged;
  return {
    time: logged.time,
    channels: logged.channels.map((channel) =>
      channel.name === 'lambda' ? { ...channel, values: channel.values.map((value) => value - offset) } : channel,
    ),
  };
}
