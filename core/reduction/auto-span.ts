import { correlate, noiseAutocovariance } from '../smoothing/noise.ts';
import { lossTorque } from './dyno-profile.ts';
import type { LocalWeights } from '../smoothing/local-polynomial.ts';
import { torqueFrom, weightsAt, type SweepDrive } from './torque-fit.ts';

/** The spans that *auto* chooses from, rpm. */
export const candidateSpans = [60, 80, 105, 140, 180, 240, 320, 420, 550] as const;

/** Places in the sweep at which the spans are compared. */
const places = 48;
/** A span is compared with this many next narrower ones: the noise of far narrower ones would drown its own loss. */
const compared = 3;
/** Share of the range left out at each end. */
const endShare = 0.04;
/** How many standard errors a difference must exceed its expectation by before it counts as lost detail. */
const caution = 2.5;

/**
 * The span that leaves the least estimated error over the sweeps given,
 * taken together: for every span, the noise it lets through (from the noise
 * as correlated as it is) plus the detail it loses (what it differs by from
 * the next narrower spans beyond what noise explains).
 * Source: Goldenshluger and Lepski, Annals of Statistics 39 (2011) 1608.
 *
 * @param runs at least one sweep of the same car; all share the span
 * @returns rpm, one of `candidateSpans`
 */
export function autoSpan(runs: readonly SweepDrive[]): number {
  const fromRpm = Math.max(...runs.map((run) => run.startRpm));
  const toRpm = Math.min(...runs.map((run) => run.endRpm));
  const spans = candidateSpans.filter((span) => span <= (toRpm - fromRpm) / 3);
  if (spans.length < 2) return candidateSpans[0];
  const count = spans.length;
  const noise = new Float64Array(count);
  const difference = new Float64Array(count * count);
  const expected = new Float64Array(count * count);
  const models = runs.map(noiseModel);
  for (let place = 0; place < places; place++) {
    // The ends, where windows are cut, have an error of their own that no span cures.
    const rpm = fromRpm + (endShare + (1 - 2 * endShare) * ((place + 0.5) / places)) * (toRpm - fromRpm);
    const mean = new Float64Array(count);
    const covariance = new Float64Array(count * count);
    runs.forEach((run, index) => {
      const fits = spans.map((span) => weightsAt(run, rpm, span));
      fits.forEach((fit, k) => (mean[k]! += fit ? torqueFrom(run, fit).torqueNm / runs.length : NaN));
      addCovariances(run, models[index]!, fits, covariance, 1 / runs.length ** 2);
    });
    for (let k = 0; k < count; k++) {
      noise[k]! += covariance[k * count + k]!;
      for (let j = 0; j < k; j++) {
        difference[k * count + j]! += (mean[k]! - mean[j]!) ** 2;
        expected[k * count + j]! +=
          covariance[k * count + k]! + covariance[j * count + j]! - 2 * covariance[k * count + j]!;
      }
    }
  }
  const risk = spans.map((_, k) => {
    let lost = 0;
    for (let j = Math.max(0, k - compared); j < k; j++) {
      const independent = Math.max(1, (toRpm - fromRpm) / spans[j]!);
      const allowed = expected[k * count + j]! * (1 + caution * Math.sqrt(2 / independent));
      lost = Math.max(lost, difference[k * count + j]! - allowed);
    }
    return lost + noise[k]!;
  });
  return spans[risk.indexOf(Math.min(...risk))]!;
}

interface NoiseModel {
  speed: Float64Array;
  absorber: Float64Array | undefined;
}

function noiseModel(run: SweepDrive): NoiseModel {
  const { drive, first, last } = run;
  const time = drive.time.subarray(first, last + 1);
  return {
    speed: noiseAutocovariance(time, drive.speed.subarray(first, last + 1)),
    absorber: drive.absorber && noiseAutocovariance(time, drive.absorber.subarray(first, last + 1)),
  };
}

/** Adds share × the covariances between the torques of all fits, from the noise of speed and of the load cell. */
function addCovariances(
  run: SweepDrive,
  model: NoiseModel,
  fits: readonly (LocalWeights | undefined)[],
  covariance: Float64Array,
  share: number,
): void {
  const { dyno } = run;
  const lag = dyno.loadCellLagS ?? 0;
  const lossSlope = (lossTorque(dyno.parasitic, 101) - lossTorque(dyno.parasitic, 99)) / 2;
  const sources = fits.map((fit) => {
    if (!fit) return undefined;
    const speed = fit.slope.map((weight, index) => dyno.inertiaKgM2 * weight + lossSlope * fit.value[index]!);
    const absorber = model.absorber && fit.value.map((weight, index) => weight + lag * fit.slope[index]!);
    return { first: fit.first, speed, absorber };
  });
  sources.forEach((wide, k) => {
    if (!wide) return;
    const speed = correlate(model.speed, wide.speed);
    const absorber = wide.absorber && correlate(model.absorber!, wide.absorber);
    for (let j = 0; j <= k; j++) {
      const narrow = sources[j];
      if (!narrow) continue;
      let sum = overlap(speed, wide.first, narrow.speed, narrow.first);
      if (absorber) sum += overlap(absorber, wide.first, narrow.absorber!, narrow.first);
      covariance[k * fits.length + j]! += share * sum;
    }
  });
}

function overlap(a: Float64Array, firstA: number, b: Float64Array, firstB: number): number {
  const from = Math.max(firstA, firstB);
  const to = Math.min(firstA + a.length, firstB + b.length);
  let sum = 0;
  for (let at = from; at < to; at++) sum += a[at - firstA]! * b[at - firstB]!;
  return sum;
}
