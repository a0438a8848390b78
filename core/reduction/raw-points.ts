import { interpolate } from '../numerics/interpolation.ts';
import type { SweepDrive } from './sweep-drive.ts';
import { drumSpeedAt, torqueAt } from './torque-fit.ts';

/** Unsmoothed power of a sweep, uncorrected: each point rests on its own samples alone. */
export interface RawPoints {
  engineSpeedRpm: Float64Array;
  powerKw: Float64Array;
}

/**
 * Power between one step of the grid and the next, from the impulse at both:
 * neighbouring points share no sample, so what is seen behind a smoothed line
 * is what the instruments gave.
 *
 * @param gridRpm width of a step, rpm
 */
export function rawPoints(run: SweepDrive, gridRpm: number): RawPoints {
  const { time } = run.traces[0]!;
  const amount = run.drive.impulse.subarray(run.first, run.last + 1);
  const first = Math.ceil(run.startRpm / gridRpm);
  const steps = Math.max(0, Math.floor(run.endRpm / gridRpm) - first);
  const engineSpeedRpm = new Float64Array(steps);
  const powerKw = new Float64Array(steps);
  const timeAt = (rpm: number) => interpolate(run.mapRpm, run.mapTime, rpm);
  for (let step = 0; step < steps; step++) {
    const [from, to] = [timeAt((first + step) * gridRpm), timeAt((first + step + 1) * gridRpm)];
    const grown = interpolate(time, amount, to) - interpolate(time, amount, from);
    engineSpeedRpm[step] = (first + step + 0.5) * gridRpm;
    powerKw[step] = ((grown / (to - from)) * drumSpeedAt(run, engineSpeedRpm[step]!)) / 1000;
  }
  return { engineSpeedRpm, powerKw };
}

/** Narrower than this a span shows noise, not detail, rpm. */
const narrowestRpm = 60;

/**
 * What smoothing took off a peak, kW: power at its speed over a third of the
 * span, less that over the span. Positive where the line lies below what the
 * samples around the peak say.
 */
export function takenOffPeakKw(run: SweepDrive, rpm: number, spanRpm: number): number {
  const narrow = Math.max(narrowestRpm, spanRpm / 3);
  if (spanRpm <= narrow) return 0;
  const [fine, smooth] = [torqueAt(run, rpm, narrow), torqueAt(run, rpm, spanRpm)];
  return ((fine - smooth) * drumSpeedAt(run, rpm)) / 1000;
}
