import { sampleAt } from '../numerics/sample-at.ts';
import { axleOf, type Axle } from '../dyno/drums.ts';
import { firstNotBelow, interpolateAll } from '../numerics/interpolation.ts';
import { seriesOf } from '../numerics/picked.ts';
import type { SweepDrive } from '../reduction/sweep-drive.ts';
import { slopes } from '../smoothing/moving-fit.ts';
import { rpmPerRadS } from '../units/units.ts';
import { medianOf, quantileOf } from '../numerics/quantile.ts';

/** How far the engine runs ahead of the drum, or one axle of the other, along a sweep. All arrays of one length. */
export interface SlipTrace {
  /** Every so manyth sample is enough for what varies slowly. */
  every: number;
  time: Float64Array;
  rpm: Float64Array;
  /** Torque as a share of the sweep's highest. */
  load: Float64Array;
  /** Engine ÷ drum speed, or that of two axles, against its locked value, less 1; smoothed over a quarter of a second. */
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
/** An axle whose drums turn more slowly than this share of the other's is not driven: it stands. */
const standingShare = 0.2;
/** Without a lead-in, the lowest values of the sweep stand for the locked ratio. */
const lowestShare = 0.05;

/**
 * Slip of tyres, converter or clutch over a sweep: engine ÷ drum speed
 * against the value it has at light torque, before the throttle opens.
 * @returns undefined without a pickup: a ratio that is given cannot slip
 */
export function slipTrace(run: SweepDrive): SlipTrace | undefined {
  const { pickup, speed } = run.drive;
  if (!pickup) return undefined;
  return traceOf(run, (index) =>
    sampleAt(speed, index) > 1 ? sampleAt(pickup, index) / rpmPerRadS / sampleAt(speed, index) : NaN,
  );
}

/**
 * Slip between the axles: front ÷ rear drum speed against the value it has at
 * light torque, as calibrated or before the throttle opens.
 * @returns undefined where the axles are not recorded apart, or one of them stands
 */
export function axleTrace(run: SweepDrive): SlipTrace | undefined {
  const { drums } = run.drive;
  const of = (axle: Axle) => drums?.filter(({ place }) => axleOf(place) === axle).map(({ speed }) => speed) ?? [];
  const [front, rear] = [of('front'), of('rear')];
  if (front.length === 0 || rear.length === 0) return undefined;
  const meanAt = (speeds: readonly Float64Array[], index: number) =>
    speeds.reduce((sum, speed) => sum + sampleAt(speed, index), 0) / speeds.length;
  const lastOf = (speeds: readonly Float64Array[]) => meanAt(speeds, run.last);
  if (Math.min(lastOf(front), lastOf(rear)) < standingShare * Math.max(lastOf(front), lastOf(rear))) return undefined;
  const { axleRatios } = run.dyno;
  return traceOf(
    run,
    (index) => (meanAt(rear, index) > 1 ? meanAt(front, index) / meanAt(rear, index) : NaN),
    axleRatios && axleRatios.rear / axleRatios.front,
  );
}

/** A quotient of speeds against its value at light torque. @param known that value, where somebody took it */
function traceOf(run: SweepDrive, quotientAt: (index: number) => number, known?: number): SlipTrace | undefined {
  const { drive, first, last, sweep } = run;
  if (run.mapTime.length < 20) return undefined;
  const quotient = (from: number, to: number) => seriesOf(to - from, (index) => quotientAt(from + index));
  const leadIn = quotient(
    firstNotBelow(drive.time, sweep.openedS - beforeOpeningS - lockedS),
    firstNotBelow(drive.time, sweep.openedS - beforeOpeningS),
  ).filter((value) => !Number.isNaN(value));
  const inSweep = quotient(first, last + 1);
  const time = drive.time.subarray(first, last + 1);
  const smooth = slopes(time, inSweep, excessSpanS).value;
  const locked = lockedRatio(leadIn) ?? known ?? quantileOf(smooth, lowestShare);
  const torque = slopes(time, drive.impulse.subarray(first, last + 1), torqueSpanS).slope;
  const most = torque.reduce((top, value) => (value > top ? value : top), 0);
  if (!(locked > 0) || !(most > 0)) return undefined;
  return {
    every: Math.max(1, Math.floor(time.length / 400)),
    time,
    rpm: interpolateAll(run.mapTime, run.mapRpm, time),
    load: seriesOf(torque.length, (index) => sampleAt(torque, index) / most),
    excess: seriesOf(smooth.length, (index) => sampleAt(smooth, index) / locked - 1),
    raw: seriesOf(inSweep.length, (index) => sampleAt(inSweep, index) / locked - 1),
  };
}

function lockedRatio(leadIn: Float64Array): number | undefined {
  if (leadIn.length < leastLocked) return undefined;
  const middle = medianOf(leadIn);
  const strays = quantileOf(leadIn, 0.9) - quantileOf(leadIn, 0.1);
  return strays < steadyShare * middle ? middle : undefined;
}
