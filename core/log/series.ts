import { pullOf, type RunLog } from './run-log.ts';

/** A channel over engine speed or time, few enough points to draw. */
export interface LogSeries {
  x: Float64Array;
  values: Float64Array;
}

const pointsOnScreen = 260;
/** Shown before and after the pull, s. */
const aroundS = 1.5;

/** A channel's means in bins of engine speed over the pull. */
export function overSpeed(log: RunLog, values: Float64Array): LogSeries {
  const [first, last] = pullOf(log);
  const rpm = log.engineSpeedRpm.subarray(first, last + 1);
  const least = rpm.reduce((a, b) => (b < a ? b : a), Infinity);
  const most = rpm.reduce((a, b) => (b > a ? b : a), -Infinity);
  const width = Math.max(10, (most - least) / Math.min(pointsOnScreen, Math.max(1, (last - first) / 2)));
  return binned(rpm, values.subarray(first, last + 1), least, width, Math.ceil((most - least) / width) + 1);
}

/** A channel's means in bins of time, from a little before the pull to a little after. */
export function overTime(log: RunLog, values: Float64Array): LogSeries {
  const from = Math.max(log.time[0]!, log.startS - aroundS);
  const to = Math.min(log.time[log.time.length - 1]!, log.endS + aroundS);
  const width = (to - from) / pointsOnScreen;
  return binned(log.time, values, from, width, pointsOnScreen);
}

function binned(x: Float64Array, values: Float64Array, from: number, width: number, bins: number): LogSeries {
  const sums = new Float64Array(bins);
  const places = new Float64Array(bins);
  const counts = new Float64Array(bins);
  for (let index = 0; index < x.length; index++) {
    const bin = Math.floor((x[index]! - from) / width);
    if (bin < 0 || bin >= bins || Number.isNaN(values[index]!)) continue;
    sums[bin]! += values[index]!;
    places[bin]! += x[index]!;
    counts[bin]! += 1;
  }
  const filled = Array.from(counts.keys()).filter((bin) => counts[bin]! > 0);
  return {
    x: Float64Array.from(filled, (bin) => places[bin]! / counts[bin]!),
    values: Float64Array.from(filled, (bin) => sums[bin]! / counts[bin]!),
  };
}
