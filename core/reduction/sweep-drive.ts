import { firstNotBelow } from '../numerics/interpolation.ts';
import { pickedAt } from '../numerics/picked.ts';
import { atLeastSamples, slopes } from '../smoothing/moving-fit.ts';
import { thinned, type Thinned } from '../smoothing/thinned.ts';
import { engineRpmOf, smoothRatio, type Drive } from './drive.ts';
import type { DynoProfile, DrumPlace } from '../dyno/dyno-profile.ts';
import type { DrumMotion } from './joined-drums.ts';
import { withoutFall } from './fall-corners.ts';
import type { SweepSpan } from './sweep.ts';

/** What torque is fitted to. */
export interface Fitting {
  /** Samples inside the sweep (index 0 is its first), and averaged in blocks: impulse, without what a lasting fall takes, and engine speed. */
  traces: Thinned;
  /** What that fall takes of torque at an engine speed, N·m. */
  lostNm: (rpm: number) => number;
}

/** A sweep made ready for fitting: engine speed as a rising function of time within it. */
export interface SweepDrive extends Fitting {
  drive: Drive;
  dyno: DynoProfile;
  sweep: SweepSpan;
  /** First and last sample inside the sweep. */
  first: number;
  last: number;
  /** Indices of samples at which torque jumps (a fuel cut) or the clock jumps: each begins a stretch; `first` is the first of them, `last + 1` the last. */
  stretches: Int32Array;
  /** Indices of samples at which a lasting fall begins and ends. */
  corners: readonly number[];
  /** Times, engine speeds (rpm) and drum speeds (rad/s); the first two rising. */
  mapTime: Float64Array;
  mapRpm: Float64Array;
  mapSpeed: Float64Array;
  /** Each drum by itself, where several are recorded. */
  drums: readonly DrumTraces[] | undefined;
  startRpm: number;
  endRpm: number;
}

/** One drum's impulse over engine speed, and its speed (rad/s) at the times of the map. */
interface DrumTraces extends Fitting {
  place: DrumPlace;
  mapSpeed: Float64Array;
}

// Set by bench/accuracy.ts: the error against known truths, mean and worst.
/** The traces are thinned so many times. */
export const thinnings = 6;

/** Span of the fit that says which engine speed belongs to which time, s. */
const mapSpanS = 0.12;
/** Span over which a drum's own speed is taken, s. */
const drumSpanS = 0.4;

/** Cuts the sweep out of a drive and makes its map from time to engine speed. */
export function sweepDrive(drive: Drive, dyno: DynoProfile, sweep: SweepSpan): SweepDrive {
  const first = firstNotBelow(drive.time, sweep.startS);
  const last = Math.min(firstNotBelow(drive.time, sweep.endS + 1e-9), drive.time.length) - 1;
  const time = drive.time.subarray(first, last + 1);
  const smooth = slopes(time, drive.speed.subarray(first, last + 1), atLeastSamples(time, mapSpanS, 5)).value;
  // Creep ends with the lift: the ratio inside the sweep is smoothed from samples inside it alone.
  const { edges, fall } = sweep;
  const corners = fall ? [fall.fromS, fall.toS].map((atS) => firstNotBelow(drive.time, atS)) : [];
  const ratio = drive.pickup
    ? ratioBetween(corners, drive, drive.pickup, first, last)
    : drive.ratio.subarray(first, last + 1);
  const rpm = engineRpmOf({ speed: smooth, ratio });
  const rising = risingIn(rpm);
  const mapRpm = pickedAt(rpm, rising);
  // No smoothing window crosses a step of the clock: on its other side the times are not what they seem.
  const jumps = drive.clock.jumps.map(({ atS }) => firstNotBelow(drive.time, atS + 1e-9));
  const breaks = [...edges.map(({ at }) => at), ...jumps.filter((at) => at > first && at <= last)].sort(
    (a, b) => a - b,
  );
  // What a lasting fall takes is given back by the fit: no window is cut at its corners, and none smears them.
  const fitting = (series: Float64Array) => {
    const { impulse, lostNm } = withoutFall(time, rpm, series.subarray(first, last + 1), fall?.shape);
    return { traces: thinned({ time, amount: impulse, variable: rpm }, thinnings), lostNm };
  };
  const drumTraces = (drum: DrumMotion): DrumTraces => {
    const slope = slopes(time, drum.speed.subarray(first, last + 1), atLeastSamples(time, drumSpanS, 5)).value;
    return {
      place: drum.place,
      ...fitting(drum.impulse),
      mapSpeed: pickedAt(slope, rising),
    };
  };
  return {
    drive,
    dyno,
    sweep,
    first,
    last,
    corners,
    stretches: Int32Array.of(first, ...breaks, last + 1),
    mapTime: pickedAt(time, rising),
    mapRpm,
    mapSpeed: pickedAt(smooth, rising),
    ...fitting(drive.impulse),
    drums: drive.drums?.map(drumTraces),
    startRpm: mapRpm[0] ?? NaN,
    endRpm: mapRpm[mapRpm.length - 1] ?? NaN,
  };
}

/** Engine ÷ drum speed from first to last, smoothed: creep changes its course with torque, so each side of a corner by itself. */
function ratioBetween(
  corners: readonly number[],
  { time, speed }: Drive,
  pickup: Float64Array,
  first: number,
  last: number,
): Float64Array {
  const ends = [first, ...corners, last + 1];
  const ratio = new Float64Array(last + 1 - first);
  ends.slice(1).forEach((end, index) => {
    const of = (series: Float64Array) => series.subarray(ends[index], end);
    ratio.set(smoothRatio(of(time), of(speed), of(pickup)), ends[index]! - first);
  });
  return ratio;
}

/** Indices of the values that exceed all earlier ones. */
function risingIn(values: Float64Array): Int32Array {
  const indices = new Int32Array(values.length);
  let count = 0;
  let highest = -Infinity;
  for (let index = 0; index < values.length; index++) {
    if (!(values[index]! > highest)) continue;
    highest = values[index]!;
    indices[count++] = index;
  }
  return indices.subarray(0, count);
}
