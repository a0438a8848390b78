import { sampleAt } from '../../numerics/sample-at.ts';
import type { Reach } from '../../limits/broken-limits.ts';
import { limitChannel, limitQuantities, type Limit } from '../../limits/limit.ts';
import { channelOf, settlingS, type RunLog } from '../pull/run-log.ts';
import { sensorDead } from './sensors.ts';
import { speedChannels, torqueChannels } from '../../recording/channels.ts';
import { firstNotBelow } from '../../numerics/interpolation.ts';

/** A reading's noise is averaged over this time before its extremes are taken, s; what strikes at once over less. */
const averagedS = 0.2;
const atOnceS = 0.08;
const atOnce: readonly string[] = ['knockRetard', 'boost'];
/** Not read by a probe that must settle: looked at from the throttle's opening on. */
const settled: readonly string[] = ['knockRetard', 'engineSpeed', 'ignitionAdvance', 'injectorDuty', 'batteryVoltage'];

/** A channel with its noise averaged away as it is judged; NaN outside of the pull and before its probe has settled. */
export function judgedReading(log: RunLog, channel: string, read: Float64Array): Float64Array {
  const { time } = log;
  const [first, end] = judgedStretch(log, channel);
  const half = (atOnce.includes(channel) ? atOnceS : averagedS) / 2;
  const values = new Float64Array(read.length).fill(NaN);
  // A reading from before or after the pull must not enter a mean at the pull's ends.
  let [from, to, sum, count] = [first, first, 0, 0];
  for (let index = first; index < end; index++) {
    for (; to < end && sampleAt(time, to) <= sampleAt(time, index) + half; to++) {
      const value = sampleAt(read, to);
      if (value === value) [sum, count] = [sum + value, count + 1];
    }
    for (; sampleAt(time, from) < sampleAt(time, index) - half; from++) {
      const value = sampleAt(read, from);
      if (value === value) [sum, count] = [sum - value, count - 1];
    }
    if (count > 0) values[index] = sum / count;
  }
  return values;
}

/** First sample that is judged, and the one after the last. */
function judgedStretch({ time, startS, endS }: RunLog, channel: string): readonly [number, number] {
  const first = firstNotBelow(time, startS + (settled.includes(channel) ? 0 : settlingS));
  let end = firstNotBelow(time, endS);
  while (end < time.length && sampleAt(time, end) <= endS) end++;
  return [first, Math.max(first, end)];
}

/** Least and greatest reading of a channel in the pull, and the engine speeds at which they were read. */
export interface Extremes {
  least: number;
  leastRpm: number;
  most: number;
  mostRpm: number;
}

/** A channel's extremes in the pull, its noise averaged away; NaN where nothing was read. */
export function extremesOf(log: RunLog, channel: string, read: Float64Array): Extremes {
  const values = judgedReading(log, channel, read);
  const [first, end] = judgedStretch(log, channel);
  let [least, most, leastRpm, mostRpm] = [NaN, NaN, NaN, NaN];
  for (let index = first; index < end; index++) {
    const value = sampleAt(values, index);
    if (value !== value) continue;
    const rpm = sampleAt(log.engineSpeedRpm, index);
    if (!(value >= least)) [least, leastRpm] = [value, rpm];
    if (!(value <= most)) [most, mostRpm] = [value, rpm];
  }
  return { least, leastRpm, most, mostRpm };
}

/** Channels that tell how the drum moves, and nothing that a limit is set for. */
export const motionChannels: readonly string[] = ['time', ...speedChannels, ...torqueChannels, 'throttle'];

/** The extremes of every logged channel, and of engine speed: what limits are held against. A dead sensor has none. */
export function logExtremes(log: RunLog): ReadonlyMap<string, Extremes> {
  const dead = sensorDead(log).map(({ channels }) => channels[0]);
  const found = new Map<string, Extremes>();
  for (const name of new Set(['engineSpeed', 'fuelTrim', ...log.channels.keys()])) {
    const values = channelOf(log, name);
    if (values && !motionChannels.includes(name) && !dead.includes(name))
      found.set(name, extremesOf(log, name, values));
  }
  return found;
}

/** Where the extremes of a run came nearest to a limit; undefined where its quantity was not logged. */
export function reachIn(extremes: ReadonlyMap<string, Extremes>): (limit: Limit) => Reach | undefined {
  return ({ quantity }) => {
    const found = extremes.get(limitChannel(quantity));
    if (!found) return undefined;
    return limitQuantities[quantity].side === 'most'
      ? { reading: found.most, atRpm: found.mostRpm }
      : { reading: found.least, atRpm: found.leastRpm };
  };
}
