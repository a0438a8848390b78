import { firstNotBelow, interpolate } from '../recording/search.ts';
import { dot, localWeights, type LocalWeights } from '../smoothing/local-polynomial.ts';
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

export interface TorqueWeights extends LocalWeights {
  atS: number;
}

/**
 * The weights of the fit at one engine speed over a span of engine speed.
 * The window is cut at the sweep's ends, never widened over them, and widened
 * inside where it would hold too few samples for the fit.
 */
export function weightsAt(run: SweepDrive, rpm: number, spanRpm: number): TorqueWeights | undefined {
  const { time } = run.drive;
  const atS = interpolate(run.mapRpm, run.mapTime, rpm);
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
  const degree = spanRpm === 0 ? 1 : cut ? 2 : fitDegree;
  const weights = localWeights(time, first, last, atS, degree);
  return weights && { ...weights, atS };
}

/** Torque at the drum, N·m: (I·dω/dt + absorber, its lag taken back, + the machine's losses). */
export function torqueFrom(run: SweepDrive, weights: TorqueWeights): { torqueNm: number; speedRadS: number } {
  const { drive, dyno } = run;
  const speedRadS = dot(weights.value, drive.speed, weights.first);
  let torqueNm =
    dyno.inertiaKgM2 * dot(weights.slope, drive.speed, weights.first) + lossTorque(dyno.parasitic, speedRadS);
  if (drive.absorber) {
    torqueNm += dot(weights.value, drive.absorber, weights.first);
    // A first-order load cell reads late; its input is the reading plus lag times the reading's slope.
    torqueNm += (dyno.loadCellLagS ?? 0) * dot(weights.slope, drive.absorber, weights.first);
  }
  return { torqueNm, speedRadS };
}
