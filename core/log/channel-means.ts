import { firstNotBelow, interpolate } from '../numerics/interpolation.ts';
import { motionChannels } from './extremes.ts';
import { pullOf, settlingS, type RunLog } from './run-log.ts';
import { overSpeed } from './series.ts';

/** Channels are compared at multiples of this, rpm. */
const gridRpm = 100;

/** A channel over engine speed in one pull. */
export interface ChannelMeans {
  unit: string;
  /** Multiples of 100 rpm, rising. */
  engineSpeedRpm: Float64Array;
  /** Its mean around each of them, in its unit. */
  values: Float64Array;
}

/**
 * Every channel of a pull over engine speed, on the grid that all runs share,
 * so that runs can be compared at the same speed. What says how the drum moves
 * is left out, and so is what was read in the half second after the throttle opened.
 */
export function channelMeans(log: RunLog, units: ReadonlyMap<string, string>): ReadonlyMap<string, ChannelMeans> {
  const [first, last] = pullOf(log);
  const from = firstNotBelow(log.time, log.startS + settlingS);
  const settled: RunLog = from > first && from < last ? { ...log, startS: log.time[from]! } : log;
  const found = new Map<string, ChannelMeans>();
  for (const [name, values] of log.channels) {
    if (motionChannels.includes(name) || name === 'engineSpeed') continue;
    const { x, values: means } = overSpeed(settled, values);
    if (x.length < 2) continue;
    const [least, most] = [Math.ceil(x[0]! / gridRpm), Math.floor(x[x.length - 1]! / gridRpm)];
    if (most <= least) continue;
    const engineSpeedRpm = Float64Array.from({ length: most - least + 1 }, (_, index) => (least + index) * gridRpm);
    found.set(name, {
      unit: units.get(name) ?? '',
      engineSpeedRpm,
      values: engineSpeedRpm.map((rpm) => interpolate(x, means, rpm)),
    });
  }
  return found;
}
