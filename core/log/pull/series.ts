import { sampleAt } from '../../numerics/sample-at.ts';
import { pullOf, type RunLog } from './run-log.ts';

/** A channel over engine speed, road speed or time, few enough points to draw. */
export interface LogSeries {
  x: Float64Array;
  values: Float64Array;
}

export const noSeries: LogSeries = { x: new Float64Array(), values: new Float64Array() };

const pointsOnScreen = 400;
/** Shown before and after the pull, s. */
const aroundS = 1.5;

/** A channel's means in bins of engine speed over the pull. */
export function overSpeed(log: RunLog, values: Float64Array): LogSeries {
  return overPlaces(log, log.engineSpeedRpm, values, 10);
}

/**
 * A channel's means in bins of something that rises through the pull.
 * @param places its value at each sample of the log
 * @param leastWidth of a bin, in its unit
 */
export function overPlaces(log: RunLog, places: Float64Array, values: Float64Array, leastWidth: number): LogSeries {
  const [first, last] = pullOf(log);
  const x = places.subarray(first, last + 1);
  let [least, most] = [Infinity, -Infinity];
  for (const place of x) {
    if (place < least) least = place;
    if (place > most) most = place;
  }
  if (!(most > least)) return noSeries;
  const width = Math.max(leastWidth, (most - least) / Math.min(pointsOnScreen, Math.max(1, (last - first) / 2)));
  return binned(x, values.subarray(first, last + 1), least, width, Math.ceil((most - least) / width) + 1);
}

/** A channel's means in bins of time, from a little before the pull to a little after. */
export function overTime(log: RunLog, values: Float64Array): LogSeries {
  const from = Math.max(sampleAt(log.time, 0), log.startS - aroundS);
  const to = Math.min(sampleAt(log.time, log.time.length - 1), log.endS + aroundS);
  const width = (to - from) / pointsOnScreen;
  return binned(log.time, values, from, width, pointsOnScreen);
}

function binned(x: Float64Array, values: Float64Array, from: number, width: number, bins: number): LogSeries {
  const sums = new Float64Array(bins);
  const places = new Float64Array(bins);
  const counts = new Float64Array(bins);
  for (let index = 0; index < x.length; index++) {
    const bin = Math.floor((sampleAt(x, index) - from) / width);
    if (bin < 0 || bin >= bins || Number.isNaN(sampleAt(values, index))) continue;
    sums[bin]! += sampleAt(values, index);
    places[bin]! += sampleAt(x, index);
    counts[bin]! += 1;
  }
  const filled = Array.from(counts.keys()).filter((bin) => sampleAt(counts, bin) > 0);
  return {
    x: Float64Array.from(filled, (bin) => sampleAt(places, bin) / sampleAt(counts, bin)),
    values: Float64Array.from(filled, (bin) => sampleAt(sums, bin) / sampleAt(counts, bin)),
  };
}
