import { firstNotBelow, interpolate } from '../recording/search.ts';
import { dot, localFit, localWeights, type LocalFit, type LocalWeights } from '../smoothing/local-polynomial.ts';
import { slopes } from '../smoothing/moving-fit.ts';
import { rpmPerRadS } from '../units/units.ts';
import type { Drive } from './drive.ts';
import { lossTorque, type DynoProfile } from './dyno-profile.ts';
import type { SweepSpan } from './sweep.ts';

/** Degree of the local fit to drum speed. */
export const fitDegree = 3;

/** A sweep made ready for fitting: engine speed as a rising function of time within it. */
export interface SweepDrive {
  drive: Drive;
  dyno: DynoProfile;
  sweep: SweepSpan;
  /** First and last sample inside the sweep. */
  first: number;
  last: number;
  /** Times and engine speeds (rpm), both rising. */
  mapTime: Float64Array;
  mapRpm: Float64Array;
  startRpm: number;
  endRpm: number;
}

/** Span of the fit that says which engine speed belongs to which time, s. */
const mapSpanS = 0.12;

/** Cuts the sweep out of a drive and makes its map from time to engine speed. */
export function sweepDrive(drive: Drive, dyno: DynoProfile, sweep: SweepSpan): SweepDrive {
  const first = firstNotBelow(drive.time, sweep.startS);
  const last = Math.min(firstNotBelow(drive.time, sweep.endS + 1e-9), drive.time.length) - 1;
  const time = drive.time.subarray(first, last + 1);
  const smooth = slopes(time, drive.speed.subarray(first, last + 1), mapSpanS).value;
  const mapTime: number[] = [];
  const mapRpm: number[] = [];
  for (let index = 0; index < time.length; index++) {
    const rpm = smooth[index]! * drive.ratio[first + index]! * rpmPerRadS;
    if (Number.isFinite(rpm) && (mapRpm.length === 0 || rpm > mapRpm.at(-1)!)) {
      mapTime.push(time[index]!);
      mapRpm.push(rpm);
    }
  }
  return {
    drive,
    dyno,
    sweep,
    first,
    last,
    mapTime: Float64Array.from(mapTime),
    mapRpm: Float64Array.from(mapRpm),
    startRpm: mapRpm[0] ?? NaN,
    endRpm: mapRpm.at(-1) ?? NaN,
  };
}

/** Which samples make the fit at one engine speed, and of what degree. */
interface Window {
  atS: number;
  first: number;
  last: number;
  degree: number;
}

/**
 * The window of the fit at one engine speed over a span of engine speed: cut
 * at the sweep's ends, never laid over them, and widened inside where it would
 * hold too few samples for the fit.
 */
function windowAt(run: SweepDrive, rpm: number, spanRpm: number): Window {
  const { time } = run.drive;
  const fromRpm = Math.max(run.startRpm, rpm - spanRpm / 2);
  const toRpm = Math.min(run.endRpm, rpm + spanRpm / 2);
  let first = Math.max(run.first, firstNotBelow(time, interpolate(run.mapRpm, run.mapTime, fromRpm)));
  let last = Math.min(run.last, firstNotBelow(time, interpolate(run.mapRpm, run.mapTime, toRpm) + 1e-9) - 1);
  const wanted = spanRpm > 0 ? fitDegree + 4 : 3;
  while (last - first + 1 < wanted && (first > run.first || last < run.last)) {
    if (first > run.first) first--;
    if (last < run.last) last++;
  }
  const cut = fromRpm > rpm - spanRpm / 2 || toRpm < rpm + spanRpm / 2;
  // A one-sided cubic swings; near the ends a parabola errs less.
  const degree = spanRpm === 0 ? 1 : cut ? 2 : fitDegree;
  return { atS: interpolate(run.mapRpm, run.mapTime, rpm), first, last, degree };
}

/** The weights of the fit at one engine speed: what the noise of samples does to it can be worked out from them. */
export function weightsAt(run: SweepDrive, rpm: number, spanRpm: number): LocalWeights | undefined {
  const { atS, first, last, degree } = windowAt(run, rpm, spanRpm);
  return localWeights(run.drive.time, first, last, atS, degree);
}

/** Torque and speed at the drum at one engine speed, N·m and rad/s; undefined where no fit can be made. */
export function torqueAt(run: SweepDrive, rpm: number, spanRpm: number): DrumTorque | undefined {
  const { atS, first, last, degree } = windowAt(run, rpm, spanRpm);
  const { time, speed, absorber } = run.drive;
  const fit = localFit(time, speed, first, last, atS, degree);
  return fit && drumTorque(run.dyno, fit, absorber && localFit(time, absorber, first, last, atS, degree));
}

/** The same out of weights that have been made already. */
export function torqueFrom(run: SweepDrive, { first, value, slope }: LocalWeights): DrumTorque {
  const fitted = (samples: Float64Array) => ({ value: dot(value, samples, first), slope: dot(slope, samples, first) });
  return drumTorque(run.dyno, fitted(run.drive.speed), run.drive.absorber && fitted(run.drive.absorber));
}

export interface DrumTorque {
  torqueNm: number;
  speedRadS: number;
}

/** I·dω/dt + absorber, its lag taken back, + the machine's losses. */
function drumTorque(dyno: DynoProfile, speed: LocalFit, absorber: LocalFit | undefined): DrumTorque {
  // A first-order load cell reads late; its input is the reading plus lag times the reading's slope.
  const absorbed = absorber ? absorber.value + (dyno.loadCellLagS ?? 0) * absorber.slope : 0;
  return {
    torqueNm: dyno.inertiaKgM2 * speed.slope + absorbed + lossTorque(dyno.parasitic, speed.value),
    speedRadS: speed.value,
  };
}
