import { rpmPerRadS } from '../core/units/units.ts';
import { Refusal } from '../core/refusal.ts';

/** Calibrations look at the last seconds, s, and want so many rows. */
const lookedAtS = 2;
const leastRows = 10;
/** A speed is steady while it changes by less than this share. */
const steadyShare = 0.015;
/** With more throttle than this tyres creep too much for a ratio, %. */
const lightThrottle = 60;
/** A drum that turns faster than this does not stand, rad/s. */
const standingRadS = 1.2;

/** The last rows of an instrument and what stands in them. */
export interface RecentRows {
  names: readonly string[];
  rows: readonly Float64Array[];
}

function lastOf({ names, rows }: RecentRows): (name: string) => number[] | undefined {
  const latestS = rows.at(-1)?.[0] ?? 0;
  const taken = rows.filter((row) => row[0]! >= latestS - lookedAtS);
  if (taken.length < leastRows) {
    throw new Refusal('Too little was heard from the instrument to calibrate it. Check that it sends, then try again.');
  }
  return (name) => {
    const at = names.indexOf(name);
    const values = at < 0 ? [] : taken.map((row) => row[at + 1]!).filter((value) => !Number.isNaN(value));
    return values.length > 0 ? values : undefined;
  };
}

const meanOf = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;

/**
 * Engine ÷ drum speed from the last two seconds at a steady speed and light throttle.
 * @param engineRpm as read off the car's own instrument where the dyno has no pickup
 * @throws Refusal when nothing is steady, or there is no engine speed
 */
export function calibratedRatio(recent: RecentRows, radiusM: number | undefined, engineRpm?: number): number {
  const values = lastOf(recent);
  const surface = values('surfaceSpeed');
  const drum =
    values('rollerSpeed') ??
    values('hubSpeed') ??
    values('hubSpeedLeft') ??
    (radiusM ? surface?.map((metresPerS) => metresPerS / radiusM) : undefined);
  const pickup = values('engineSpeed');
  if (!drum || meanOf(drum) < standingRadS)
    throw new Refusal('The drum stands. Drive at a steady speed in the gear of the runs, then try again.');
  const throttle = values('throttle');
  if (throttle && meanOf(throttle) > lightThrottle)
    throw new Refusal('Too much throttle: tyres creep under load. Hold the speed at light throttle, then try again.');
  const share = (Math.max(...drum) - Math.min(...drum)) / meanOf(drum);
  if (share > steadyShare)
    throw new Refusal(
      `The speed is not steady: it changed by ${(100 * share).toFixed(1)} % within ${lookedAtS} s. Hold it, then try again.`,
    );
  const rpm = engineRpm ?? (pickup && meanOf(pickup));
  if (rpm === undefined)
    throw new Refusal('The dyno has no pickup: type the engine speed that the car’s own instrument shows.');
  return rpm / rpmPerRadS / meanOf(drum);
}

/**
 * What each load cell reads with the drum at rest, N·m, by channel.
 * @throws Refusal while the drum turns, or where there is no load cell
 */
export function loadCellZero(recent: RecentRows): Record<string, number> {
  const values = lastOf(recent);
  const speed = values('rollerSpeed') ?? values('hubSpeed') ?? values('hubSpeedLeft') ?? values('surfaceSpeed');
  if (!speed || meanOf(speed) > standingRadS)
    throw new Refusal('The drum turns. Let it come to rest with nothing on the load cell, then take the zero.');
  const zero: Record<string, number> = {};
  for (const name of ['absorberTorque', 'absorberTorqueLeft', 'absorberTorqueRight']) {
    const read = values(name);
    if (read) zero[name] = Math.round(meanOf(read) * 100) / 100;
  }
  if (Object.keys(zero).length === 0) throw new Refusal('This dyno has no load cell: there is no zero to take.');
  return zero;
}
