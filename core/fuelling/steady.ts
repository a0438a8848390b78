import { sampleAt } from '../numerics/sample-at.ts';
import { medianOf } from '../numerics/quantile.ts';
import { slopes } from '../smoothing/moving-fit.ts';
import { axisReadings, type FuellingAxes, type PartLoadLog } from './axes.ts';

/** Why a sample is kept out of a fuelling table; the first is none. */
export const keptOutFor = ['kept', 'transient', 'fuel cut', 'settling', 'probe', 'not read', 'off the table'] as const;
export type KeptOutFor = (typeof keptOutFor)[number];
export const codeOf = (reason: KeptOutFor): number => keptOutFor.indexOf(reason);

/** Rates are looked at over this time, s. */
const spanS = 0.5;
// Set by bench/fuelling.ts: bias of the cells against how much of a drive is left.
/** A reading at rest moves less than this in a second. */
const restingRates: Record<string, number> = {
  engineSpeed: 120,
  manifoldPressure: 8,
  throttle: 8,
  boost: 8,
  airMassPerCycle: 0.12,
  airFlowSensor: 0.15,
};
/** The rate that noise alone shows is allowed for, times this. */
const noiseAllowance = 3;
/** λ between these is what a wideband probe reads soundly. */
const probeRange = { least: 0.65, most: 1.6 } as const;
/** A probe whose reading does not move at all for so long is not ready, or dead, s. */
const frozenS = 2;
/** Injectors that open less than this, ms, are shut. */
const shutMs = 0.05;
/** A foot off the pedal, %, with a reading leaner than this share of the target: fuel is cut. */
const liftPercent = 2;
const cutShare = 1.25;

/**
 * Whether the engine stood still in speed and load at each sample, by what
 * moved on the table's axes and the pedal; limits suit the channel's own
 * noise and rate.
 * @returns element: 1 steady, 0 moving
 */
export function steadySamples(log: PartLoadLog, axes: FuellingAxes): Uint8Array {
  const { time } = log;
  const steady = new Uint8Array(time.length).fill(1);
  const watched = new Map<string, Float64Array>();
  for (const { channel } of [axes.across, ...(axes.down ? [axes.down] : [])]) {
    const values = axisReadings(log, channel);
    if (values) watched.set(channel, values);
  }
  watched.set('engineSpeed', log.engineSpeedRpm);
  const throttle = log.channels.get('throttle');
  if (throttle) watched.set('throttle', throttle);
  for (const [channel, values] of watched) {
    const limit = restingRates[channel]! + noiseAllowance * slopeNoise(time, values);
    const { slope } = slopes(time, values, spanS);
    for (let index = 0; index < steady.length; index++)
      if (!(Math.abs(sampleAt(slope, index)) <= limit)) steady[index] = 0;
  }
  return steady;
}

/** Standard deviation of a slope over the span from noise alone, in the channel's unit a second. */
function slopeNoise(time: Float64Array, values: Float64Array): number {
  const count = time.length;
  if (count < 3) return 0;
  const steps: number[] = [];
  const every = Math.max(1, Math.floor(count / 5000));
  for (let index = 1; index < count; index += every) {
    const step = Math.abs(sampleAt(values, index) - sampleAt(values, index - 1));
    if (!Number.isNaN(step)) steps.push(step);
  }
  if (steps.length === 0) return 0;
  const noise = medianOf(Float64Array.from(steps)) / (0.6745 * Math.SQRT2);
  const inSpan = Math.max(3, (spanS * (count - 1)) / (sampleAt(time, count - 1) - sampleAt(time, 0)));
  return (noise * Math.sqrt(12 / inSpan)) / spanS;
}

/** What is wrong with each sample's own reading, as codes of `keptOutFor`; 0 where nothing is. */
export function faultyReadings({ time, channels }: PartLoadLog, lambdaTarget: Float64Array): Uint8Array {
  const codes = new Uint8Array(time.length);
  const lambda = channels.get('lambda');
  if (!lambda) return codes.fill(codeOf('not read'));
  const pulse = channels.get('injectorPulse');
  const throttle = channels.get('throttle');
  let movedAt = 0;
  for (let index = 0; index < codes.length; index++) {
    const read = sampleAt(lambda, index);
    const target = sampleAt(lambdaTarget, index);
    if (Number.isNaN(read) || Number.isNaN(target)) codes[index] = codeOf('not read');
    else if (read <= probeRange.least || read >= probeRange.most) codes[index] = codeOf('probe');
    if (pulse && sampleAt(pulse, index) < shutMs) codes[index] = codeOf('fuel cut');
    if (throttle && sampleAt(throttle, index) < liftPercent && read > cutShare * target)
      codes[index] = codeOf('fuel cut');
    if (index > 0 && read !== sampleAt(lambda, index - 1)) {
      if (sampleAt(time, index) - sampleAt(time, movedAt) > frozenS) codes.fill(codeOf('probe'), movedAt, index);
      movedAt = index;
    }
  }
  const last = codes.length - 1;
  if (last > movedAt && sampleAt(time, last) - sampleAt(time, movedAt) > frozenS) codes.fill(codeOf('probe'), movedAt);
  return codes;
}
