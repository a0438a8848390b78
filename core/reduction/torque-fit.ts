import { firstNotBelow, interpolate } from '../numerics/interpolation.ts';
import { rateFit, rateWeights, type RateWeights } from '../smoothing/rate-fit.ts';
import { thinnings, type Fitting, type SweepDrive } from './sweep-drive.ts';

// Set by bench/accuracy.ts: the error against known truths, mean and worst.
/** Degree of torque as a polynomial of engine speed inside a window. */
const fitDegree = 2;
/** Share of what a window loses at an end of the sweep that it regains on the other side. */
const regainedShare = 0.5;
/** Windows are thinned while they keep this many samples. */
const leastThinned = 48;

/** Which samples of the sweep (0 is its first) make the fit at one engine speed, and of what degree. */
interface Window {
  first: number;
  last: number;
  degree: 0 | 1 | 2;
}

/**
 * The window of the fit at one engine speed over a span of engine speed: cut
 * at the sweep's ends and where torque jumps, never laid over them, and
 * widened inside where it would hold too few samples for the fit.
 */
function windowAt(run: SweepDrive, rpm: number, spanRpm: number): Window {
  const { time } = run.traces[0]!;
  const at = firstNotBelow(time, interpolate(run.mapRpm, run.mapTime, rpm));
  let from = 0;
  let to = time.length - 1;
  for (let index = 1; index < run.stretches.length - 1; index++) {
    const edge = run.stretches[index]! - run.first;
    if (edge <= at) from = edge;
    else {
      to = edge - 1;
      break;
    }
  }
  // What the window loses at an end it regains in part on the other side.
  const below = Math.max(0, run.startRpm - (rpm - spanRpm / 2));
  const above = Math.max(0, rpm + spanRpm / 2 - run.endRpm);
  const fromRpm = Math.max(run.startRpm, rpm - spanRpm / 2 - regainedShare * above);
  const toRpm = Math.min(run.endRpm, rpm + spanRpm / 2 + regainedShare * below);
  const wantedFirst = firstNotBelow(time, interpolate(run.mapRpm, run.mapTime, fromRpm));
  const wantedLast = firstNotBelow(time, interpolate(run.mapRpm, run.mapTime, toRpm) + 1e-9) - 1;
  let first = Math.max(from, wantedFirst);
  let last = Math.min(to, wantedLast);
  const wanted = spanRpm > 0 ? 7 : 3;
  while (last - first + 1 < wanted && (first > from || last < to)) {
    if (first > from) first--;
    if (last < to) last++;
  }
  return { first, last, degree: spanRpm === 0 ? 0 : fitDegree };
}

/** The window on the coarsest traces that serve it: whole blocks; the sweep's last block may be short. */
function blocksOf(run: SweepDrive, { first, last }: Window, level: number): readonly [number, number] {
  const { length } = run.traces[level]!.time;
  return [
    Math.ceil(first / (1 << level)),
    last === run.traces[0]!.time.length - 1 ? length - 1 : ((last + 1) >> level) - 1,
  ];
}

function levelFor(run: SweepDrive, { first, last }: Window): number {
  let level = 0;
  // A jump or a lasting fall of torque inside a block would be smeared over it.
  if (run.stretches.length > 2 || run.corners.length > 0) return 0;
  while (level + 1 < thinnings && (last - first + 1) >> (level + 1) >= leastThinned) level++;
  return level;
}

/** How coarse the traces are that a fit at an engine speed is made from: blocks of 2 to this power. */
export function levelAt(run: SweepDrive, rpm: number, spanRpm: number): number {
  return levelFor(run, windowAt(run, rpm, spanRpm));
}

/** The weights of the fit at one engine speed, on the samples of `traces[level]`. */
export function weightsAt(run: SweepDrive, rpm: number, spanRpm: number, level: number): RateWeights | undefined {
  const window = windowAt(run, rpm, spanRpm);
  return rateWeights(run.traces[level]!, ...blocksOf(run, window, level), rpm, window.degree);
}

/** Torque at the drum at one engine speed, N·m: the rate at which its impulse grows there; NaN where no fit can be made. */
export function torqueAt(run: SweepDrive, rpm: number, spanRpm: number, { traces, lostNm }: Fitting = run): number {
  const window = windowAt(run, rpm, spanRpm);
  const level = levelFor(run, window);
  return rateFit(traces[level]!, ...blocksOf(run, window, level), rpm, window.degree) - lostNm(rpm);
}

/** Power of each drum by itself at an engine speed of the sweep, kW, in the order of `run.drums`. */
export function drumPowersAt(run: SweepDrive, rpm: number, spanRpm: number): number[] {
  return (run.drums ?? []).map((drum) => {
    return (torqueAt(run, rpm, spanRpm, drum) * interpolate(run.mapRpm, drum.mapSpeed, rpm)) / 1000;
  });
}

/** Drum speed at one engine speed of the sweep, rad/s. */
export function drumSpeedAt(run: SweepDrive, rpm: number): number {
  return interpolate(run.mapRpm, run.mapSpeed, rpm);
}
