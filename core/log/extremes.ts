import { averaged, pullOf, type RunLog } from './run-log.ts';

/** A reading's noise is averaged over this time before its extremes are taken, s. */
const averagedS = 0.2;
/** After the throttle opens probes and pressures need so long, s. */
const settlingS = 0.5;

/** Least and greatest reading of a channel in the pull, its noise averaged away; NaN where nothing was read. */
export function extremesOf(log: RunLog, read: Float64Array): { least: number; most: number } {
  const values = averaged(log, read, averagedS);
  const [first, last] = pullOf(log);
  let [least, most] = [NaN, NaN];
  for (let index = first; index <= last; index++) {
    const value = values[index]!;
    if (Number.isNaN(value) || log.time[index]! < log.startS + settlingS) continue;
    if (!(value >= least)) least = value;
    if (!(value <= most)) most = value;
  }
  return { least, most };
}
