import { sampleAt } from '../../numerics/sample-at.ts';
import { meanOf } from '../../numerics/mean.ts';
import { interpolate } from '../../numerics/interpolation.ts';
import { medianOf } from '../../numerics/quantile.ts';
import { standardDeviationOf } from '../../statistics/mean-difference.ts';
import { studentT } from '../../statistics/student-t.ts';
import { pullOf, type RunLog } from '../pull/run-log.ts';

/** A figure with the half of its 95 % interval; NaN where there is nothing to make one from. */
export interface WithInterval {
  value: number;
  halfWidth: number;
}

/** How boost comes, stays and goes in one pull; kPa and rpm. */
export interface BoostFigures {
  /** What it settles at: its mean over the middle of the pull. Undefined where it climbs to the end. */
  plateauKpa?: WithInterval;
  /** Engine speed at which 90 % of the plateau is reached; undefined where it was there from the start. */
  ninetyPercentRpm?: WithInterval;
  peakKpa: WithInterval;
  peakRpm: number;
  /** Peak above the target where there is one, else above the plateau. */
  overshootKpa?: WithInterval;
  /** What the end of the pull is below the target, else below the plateau. */
  taperKpa?: WithInterval;
  /** Whether overshoot and taper are held against a logged target. */
  against: 'target' | 'plateau';
}

/** Less boost than this, kPa, is none. */
const leastBoostKpa = 25;
/** The noise of a reading is averaged over this time, s. */
const smoothedS = 0.24;
/** Plateau and end, as shares of the pull. */
const plateauFrom = 0.4;
const plateauTo = 0.75;
const endFrom = 0.95;
/** More above its plateau at the end than this share climbs. */
const climbs = 1.07;
const reachedShare = 0.9;
const z95 = 1.96;
/** A median's error ÷ a mean's, of normal noise. */
const medianWider = Math.sqrt(Math.PI / 2);

/**
 * Boost of one pull. Intervals rest on the noise of the reading about its
 * running mean, as correlated as it is; how far repeats differ is another
 * matter, and larger: `meanBoost`.
 *
 * @returns undefined where no boost was logged, or there was none
 */
export function boostFigures(log: RunLog): BoostFigures | undefined {
  const read = log.channels.get('boost');
  if (!read) return undefined;
  const [first, last] = pullOf(log);
  const values = read.subarray(first, last + 1);
  const rpm = log.engineSpeedRpm.subarray(first, last + 1);
  const count = values.length;
  const seconds = sampleAt(log.time, last) - sampleAt(log.time, first);
  if (count < 40 || values.some(Number.isNaN) || !(seconds > 0)) return undefined;
  const width = Math.max(3, Math.round((smoothedS / seconds) * count));
  const smooth = runningMean(values, width);
  const noise = noiseOf(values, smooth, width);
  const ofMean = (n: number) => (z95 * noise.deviation) / Math.sqrt(Math.max(1, n / noise.related));
  const span = (from: number, to: number) => [Math.floor(from * (count - 1)), Math.ceil(to * (count - 1))] as const;
  // The running mean's ends rest on less than their width.
  const half = width >> 1;
  let top = half;
  for (let index = half; index < count - half; index++)
    if (sampleAt(smooth, index) > sampleAt(smooth, top)) top = index;
  // The highest of many means lies above the true one by its noise: the interval is one for all of them at once.
  const looks = Math.max(1, count / width);
  const simultaneous = studentT(1 - 0.05 / looks, 1e6) / z95;
  const peakKpa = { value: sampleAt(smooth, top), halfWidth: simultaneous * ofMean(width) };
  if (!(peakKpa.value > leastBoostKpa)) return undefined;
  const [from, to] = span(plateauFrom, plateauTo);
  const level = { value: medianOf(values.subarray(from, to + 1)), halfWidth: medianWider * ofMean(to - from + 1) };
  const [tail] = span(endFrom, 1);
  const end = { value: meanOf(values.subarray(tail)), halfWidth: ofMean(count - tail) };
  const targets = log.channels.get('boostTarget')?.subarray(first, last + 1);
  const target = targets && !targets.some(Number.isNaN) ? targets : undefined;
  const found = {
    peakKpa,
    peakRpm: Math.round(sampleAt(rpm, top) / 10) * 10,
    against: target ? ('target' as const) : ('plateau' as const),
  };
  const less = (a: WithInterval, b: WithInterval | number): WithInterval =>
    typeof b === 'number'
      ? { value: a.value - b, halfWidth: a.halfWidth }
      : { value: a.value - b.value, halfWidth: Math.hypot(a.halfWidth, b.halfWidth) };
  const climbing = end.value > climbs * level.value && end.value > 0.93 * peakKpa.value;
  const reached = ninetyPercent(smooth, rpm, level, ofMean(width));
  return {
    ...found,
    ...(climbing ? {} : { plateauKpa: level, ...(reached && { ninetyPercentRpm: reached }) }),
    ...(climbing && !target
      ? {}
      : {
          overshootKpa: atLeastNothing(less(peakKpa, target ? sampleAt(target, top) : level)),
          taperKpa: atLeastNothing(
            less(
              { value: -end.value, halfWidth: end.halfWidth },
              target ? -meanOf(target.subarray(tail)) : { value: -level.value, halfWidth: level.halfWidth },
            ),
          ),
        }),
  };
}

/** A figure that cannot be less than nothing; its interval stays. */
const atLeastNothing = ({ value, halfWidth }: WithInterval): WithInterval => ({ value: Math.max(0, value), halfWidth });

/** Where 90 % of the plateau is reached; its interval by the slope there. */
function ninetyPercent(
  smooth: Float64Array,
  rpm: Float64Array,
  level: WithInterval,
  halfWidthKpa: number,
): WithInterval | undefined {
  const wanted = reachedShare * level.value;
  if (sampleAt(smooth, 0) >= wanted) return undefined;
  const at = smooth.findIndex((value) => value >= wanted);
  if (at < 1) return undefined;
  const place = interpolate(smooth.subarray(at - 1, at + 1), rpm.subarray(at - 1, at + 1), wanted);
  const reach = Math.min(at, smooth.length - 1 - at, 12);
  const slope =
    (sampleAt(smooth, at + reach) - sampleAt(smooth, at - reach)) /
    (sampleAt(rpm, at + reach) - sampleAt(rpm, at - reach));
  return { value: place, halfWidth: Math.hypot(halfWidthKpa, reachedShare * level.halfWidth) / Math.abs(slope) };
}

function runningMean(values: Float64Array, width: number): Float64Array {
  const half = width >> 1;
  const sums = new Float64Array(values.length + 1);
  values.forEach((value, index) => (sums[index + 1] = sampleAt(sums, index) + value));
  return values.map((_, index) => {
    const reach = Math.min(half, index, values.length - 1 - index);
    return (sampleAt(sums, index + reach + 1) - sampleAt(sums, index - reach)) / (2 * reach + 1);
  });
}

/** Standard deviation of a reading about its running mean, and how many samples in a row say the same. */
function noiseOf(values: Float64Array, smooth: Float64Array, width: number): { deviation: number; related: number } {
  const half = width >> 1;
  const residuals = values.map((value, index) => value - sampleAt(smooth, index)).subarray(half, values.length - half);
  const variance = residuals.reduce((sum, value) => sum + value * value, 0) / residuals.length;
  // A running mean takes part of the noise with it.
  const whole = variance / (1 - 1 / (2 * half + 1));
  let products = 0;
  for (let index = 1; index < residuals.length; index++)
    products += sampleAt(residuals, index) * sampleAt(residuals, index - 1);
  const lag = variance > 0 ? Math.min(0.95, Math.max(0, products / residuals.length / variance)) : 0;
  return { deviation: Math.sqrt(whole), related: (1 + lag) / (1 - lag) };
}

/** Several runs' boost on average: intervals of the mean by how far the runs differ; one run's own by itself. */
export function meanBoost(runs: readonly BoostFigures[]): BoostFigures | undefined {
  const [first] = runs;
  if (!first || runs.length === 1) return first;
  const mean = (of: (run: BoostFigures) => WithInterval | undefined): WithInterval | undefined => {
    const values = runs.flatMap((run) => of(run)?.value ?? []);
    if (values.length < runs.length) return undefined;
    const error = standardDeviationOf(values) / Math.sqrt(values.length);
    return { value: meanOf(values), halfWidth: studentT(0.95, values.length - 1) * error };
  };
  const [plateauKpa, ninetyPercentRpm] = [mean((run) => run.plateauKpa), mean((run) => run.ninetyPercentRpm)];
  const [overshootKpa, taperKpa] = [mean((run) => run.overshootKpa), mean((run) => run.taperKpa)];
  return {
    ...(plateauKpa && { plateauKpa }),
    ...(ninetyPercentRpm && { ninetyPercentRpm }),
    peakKpa: mean((run) => run.peakKpa) ?? first.peakKpa,
    peakRpm: Math.round(meanOf(runs.map(({ peakRpm }) => peakRpm)) / 10) * 10,
    ...(overshootKpa && { overshootKpa }),
    ...(taperKpa && { taperKpa }),
    against: runs.every(({ against }) => against === 'target') ? 'target' : 'plateau',
  };
}
