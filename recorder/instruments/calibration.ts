import type { DrumPlace } from '../../core/dyno/dyno-profile.ts';
import { axleOf, drumSets, type Axle } from '../../core/dyno/drums.ts';
import { torqueChannels } from '../../core/recording/channels.ts';
import { rpmPerRadS } from '../../core/units/units.ts';
import { Refusal } from '../../core/refusal.ts';

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

/** Speeds of the drum, or of each of several, from whichever channels there are, rad/s. */
function drumSpeeds(recent: RecentRows, values: ReturnType<typeof lastOf>, radiusM: number | undefined): DrumSpeed[] {
  const drums = Object.values(drumSets).find((set) => set.some(({ speed }) => recent.names.includes(speed)));
  if (drums)
    return drums.flatMap(({ place, speed }) => {
      const radS = values(speed);
      return radS ? [{ place, radS }] : [];
    });
  const surface = values('surfaceSpeed');
  const radS =
    values('rollerSpeed') ??
    values('hubSpeed') ??
    (radiusM ? surface?.map((metresPerS) => metresPerS / radiusM) : undefined);
  return radS ? [{ place: undefined, radS }] : [];
}

interface DrumSpeed {
  place: DrumPlace | undefined;
  radS: number[];
}

/** Their mean at each moment: what an engine speed is divided by. */
const meanOfDrums = (drums: readonly DrumSpeed[]) =>
  drums[0]?.radS.map((_, at) => meanOf(drums.map(({ radS }) => radS[at] ?? NaN)));

export interface CalibratedRatio {
  /** Engine ÷ drum speed; of the mean where there are several drums. */
  value: number;
  axles: { front: number; rear: number } | null;
}

/**
 * Engine ÷ drum speed from the last two seconds at a steady speed and light throttle.
 * @param engineRpm as read off the car's own instrument where the dyno has no pickup
 * @throws Refusal when nothing is steady, or there is no engine speed
 */
export function calibratedRatio(recent: RecentRows, radiusM: number | undefined, engineRpm?: number): CalibratedRatio {
  const values = lastOf(recent);
  const drums = drumSpeeds(recent, values, radiusM);
  const drum = meanOfDrums(drums);
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
  const ratioOf = (radS: number) => rpm / rpmPerRadS / radS;
  const ofAxle = (axle: Axle) =>
    drums.filter(({ place }) => place && axleOf(place) === axle).map(({ radS }) => meanOf(radS));
  const [front, rear] = [ofAxle('front'), ofAxle('rear')];
  // An axle that stands is not driven: it has no ratio.
  const both = [...front, ...rear].every((radS) => radS > standingRadS) && front.length > 0 && rear.length > 0;
  return {
    value: ratioOf(meanOf(drum)),
    axles: both ? { front: ratioOf(meanOf(front)), rear: ratioOf(meanOf(rear)) } : null,
  };
}

/**
 * What each load cell reads with the drum at rest, N·m, by channel.
 * @throws Refusal while the drum turns, or where there is no load cell
 */
export function loadCellZero(recent: RecentRows): Record<string, number> {
  const values = lastOf(recent);
  // A surface speed in m/s turns the drum at least so fast.
  const speeds = drumSpeeds(recent, values, 1);
  if (speeds.length === 0 || speeds.some(({ radS }) => meanOf(radS) > standingRadS))
    throw new Refusal('The drum turns. Let it come to rest with nothing on the load cell, then take the zero.');
  const zero: Record<string, number> = {};
  for (const name of torqueChannels) {
    const read = values(name);
    if (read) zero[name] = Math.round(meanOf(read) * 100) / 100;
  }
  if (Object.keys(zero).length === 0) throw new Refusal('This dyno has no load cell: there is no zero to take.');
  return zero;
}
