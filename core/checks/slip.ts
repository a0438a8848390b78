import { firstNotBelow, interpolate } from '../numerics/interpolation.ts';
import type { SweepDrive } from '../reduction/sweep-drive.ts';
import { slopes } from '../smoothing/moving-fit.ts';
import { rpmPerRadS } from '../units/units.ts';
import { medianOf, quantileOf } from '../numerics/quantile.ts';

/** How far the engine runs ahead of the drum along a sweep. All arrays of one length. */
export interface SlipTrace {
  /** Every so manyth sample is enough for what varies slowly. */
  every: number;
  time: Float64Array;
  rpm: Float64Array;
  /** Torque as a share of the sweep's highest. */
  load: Float64Array;
  /** Engine ÷ drum speed against its locked value, less 1; smoothed over a quarter of a second. */
  excess: Float64Array;
  /** The same, unsmoothed. */
  raw: Float64Array;
}

// Set by bench/checks.ts: no false alarm on healthy pulls, most hits on faulty ones.
/** Ratio and torque are fitted over these times, s. */
const excessSpanS = 0.25;
const torqueSpanS = 0.5;
/** The locked ratio is taken over this time before the throttle opens, s, up to this long before it. */
const lockedS = 1.5;
const beforeOpeningS = 0.1;
/** A lead-in tells the locked ratio if it holds so many samples and its ratio strays by no more than this share. */
const leastLocked = 10;
const steadyShare = 0.01;
/** Without a lead-in the lowest values of the sweep stand for it. */
const lowestShare = 0.05;

/**
 * Slip of tyres, converter or clutch over a sweep: engine ÷ drum speed
 * against the value it has at light torque, before the throttle opens.
 * @returns undefined without a pickup: a ratio that is given cannot slip
 */
export function slipTrace(run: SweepDrive): SlipTrace | undefined {
  const { drive, first, last, sweep } = run;
  const { pickup } = drive;
  if (!pickup || run.mapTime.length < 20) return undefined;
  const ratio = (from: number, to: number) =>
    pickup.subarray(from, to).map((rpm, index) => {
      const speed = drive.speed[from + index]!;
      return speed > 1 ? rpm / rpmPerRadS / speed : NaN;
    });
  const leadIn = ratio(
    firstNotBelow(drive.time, sweep.openedS - beforeOpeningS - lockedS),
    firstNotBelow(drive.time, sweep.openedS - beforeOpeningS),
  ).filter((value) => !Number.isNaN(value));
  const inSweep = ratio(first, last + 1);
  const time = drive.time.subarray(first, last + 1);
  const smooth = slopes(time, inSweep, excessSpanS).value;
  const locked = lockedRatio(leadIn) ?? quantileOf(smooth, lowestShare);
  const torque = slopes(time, drive.impulse.subarray(first, last + 1), torqueSpanS).slope;
  const most = torque.reduce((top, value) => (value > top ? value : top), 0);
  if (!(locked > 0) || !(most > 0)) return undefined;
  return {
    every: Math.max(1, Math.floor(time.length / 400)),
    time,
    rpm: time.map((at) => interpolate(run.mapTime, run.mapRpm, at)),
    load: torque.map((value) => value / most),
    excess: smooth.map((value) => value / locked - 1),
    raw: inSweep.map((value) => value / locked - 1),
  };
}

function lockedRatio(leadIn: Float64Array): number | undefined {
  if (leadIn.length < leastLocked) return undefined;
  const middle = medianOf(leadIn);
  const strays = quantileOf(leadIn, 0.9) - quantileOf(leadIn, 0.1);
  return strays < steadyShare * middle ? middle : undefined;
}
