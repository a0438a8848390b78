import { averaged, pullOf, settlingS, type RunLog } from './run-log.ts';

/** A reading's noise is averaged over this time before its extremes are taken, s. */
const averagedS = 0.2;

/** Least and greatest reading of a channel in the pull, and the engine speeds at which they were read. */
export interface Extremes {
  least: number;
  leastRpm: number;
  most: number;
  mostRpm: number;
}

/** A channel's extremes in the pull, its noise averaged away; NaN where nothing was read. */
export function extremesOf(log: RunLog, read: Float64Array): Extremes {
  const values = averaged(log, read, averagedS);
  const [first, last] = pullOf(log);
  let [least, most, leastRpm, mostRpm] = [NaN, NaN, NaN, NaN];
  for (let index = first; index <= last; index++) {
    const value = values[index]!;
    if (Number.isNaN(value) || log.time[index]! < log.startS + settlingS) continue;
    const rpm = log.engineSpeedRpm[index]!;
    if (!(value >= least)) [least, leastRpm] = [value, rpm];
    if (!(value <= most)) [most, mostRpm] = [value, rpm];
  }
  return { least, leastRpm, most, mostRpm };
}

/** Channels that tell how the drum moves, and nothing that a limit is set for. */
export const motionChannels: readonly string[] = ['time', 'rollerSpeed', 'hubSpeed', 'surfaceSpeed', 'absorberTorque', 'hubSpeedLeft', 'hubSpeedRight', 'absorberTorqueLeft', 'absorberTorqueRight', 'throttle']; // prettier-ignore

/** The extremes of every logged channel, and of engine speed: what limits are held against. */
export function logExtremes(log: RunLog): ReadonlyMap<string, Extremes> {
  const found = new Map([['engineSpeed', extremesOf(log, log.engineSpeedRpm)]]);
  for (const [name, values] of log.channels) if (!motionChannels.includes(name) && name !== 'engineSpeed') found.set(name, extremesOf(log, values)); // prettier-ignore
  return found;
}
