import { sampleAt } from '../../numerics/sample-at.ts';
import { seriesOf } from '../../numerics/picked.ts';
import { firstNotBelow, interpolateAll } from '../../numerics/interpolation.ts';
import { motionChannels } from '../checks/extremes.ts';
import { pullOf, settlingS, type RunLog } from '../pull/run-log.ts';

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
  const { time, engineSpeedRpm: rpm } = log;
  const [begin, last] = pullOf(log);
  const first = Math.max(begin, firstNotBelow(time, log.startS + settlingS));
  const bin = (index: number) => Math.round(sampleAt(rpm, index) / gridRpm);
  let [lowest, highest] = [Infinity, -Infinity];
  for (let index = first; index <= last; index++) {
    lowest = Math.min(lowest, bin(index));
    highest = Math.max(highest, bin(index));
  }
  const found = new Map<string, ChannelMeans>();
  if (!(highest > lowest)) return found;
  const bins = highest - lowest + 1;
  for (const [name, values] of log.channels) {
    if (motionChannels.includes(name) || name === 'engineSpeed') continue;
    const [sums, places, counts] = [new Float64Array(bins), new Float64Array(bins), new Float64Array(bins)];
    for (let index = first; index <= last; index++) {
      const value = sampleAt(values, index);
      if (value !== value) continue;
      const at = bin(index) - lowest;
      sums[at]! += value;
      places[at]! += sampleAt(rpm, index);
      counts[at]! += 1;
    }
    const means = onGrid(sums, places, counts);
    if (means) found.set(name, { unit: units.get(name) ?? '', ...means });
  }
  return found;
}

/** Means around engine speeds, taken to the grid's own speeds within what was read; undefined for fewer than two. */
function onGrid(
  sums: Float64Array,
  places: Float64Array,
  counts: Float64Array,
): Pick<ChannelMeans, 'engineSpeedRpm' | 'values'> | undefined {
  const filled = Array.from(counts.keys()).filter((at) => sampleAt(counts, at) > 0);
  if (filled.length < 2) return undefined;
  const x = Float64Array.from(filled, (at) => sampleAt(places, at) / sampleAt(counts, at));
  const means = Float64Array.from(filled, (at) => sampleAt(sums, at) / sampleAt(counts, at));
  const [least, most] = [Math.ceil(sampleAt(x, 0) / gridRpm), Math.floor(sampleAt(x, x.length - 1) / gridRpm)];
  if (most <= least) return undefined;
  const engineSpeedRpm = seriesOf(most - least + 1, (index) => (least + index) * gridRpm);
  return { engineSpeedRpm, values: interpolateAll(x, means, engineSpeedRpm) };
}
