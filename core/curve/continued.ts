import { sampleAt } from '../numerics/sample-at.ts';
import { interpolate } from '../numerics/interpolation.ts';

/** A curve's further course as it may have been: an estimate that enters no figure. */
export interface ContinuedCurve {
  engineSpeedRpm: Float64Array;
  values: Float64Array;
}

/** A curve that ends within this of the other's end, rpm, was not cut short. */
const leastMissingRpm = 150;
/** The level is the mean over the last part that both cover, rpm: a single point's noise would be carried on. */
const levelledRpm = 300;

/**
 * Where a run was cut short: the other curve's shape beyond its end, at the
 * level that both stood to each other before it. Only the shape is borrowed;
 * what the setup would have done there nobody has measured.
 *
 * @returns undefined where it was not cut short, or the two share too little
 */
export function continued(
  cut: { engineSpeedRpm: Float64Array; values: Float64Array },
  other: { engineSpeedRpm: Float64Array; values: Float64Array },
): ContinuedCurve | undefined {
  const end = cut.engineSpeedRpm[cut.engineSpeedRpm.length - 1];
  const otherEnd = other.engineSpeedRpm[other.engineSpeedRpm.length - 1];
  if (end === undefined || otherEnd === undefined || otherEnd - end < leastMissingRpm) return undefined;
  const shared = Array.from(cut.engineSpeedRpm.keys()).filter((at) => {
    const rpm = sampleAt(cut.engineSpeedRpm, at);
    return rpm > end - levelledRpm && rpm >= sampleAt(other.engineSpeedRpm, 0);
  });
  if (shared.length < 3) return undefined;
  const ratios = shared.map(
    (at) =>
      sampleAt(cut.values, at) / interpolate(other.engineSpeedRpm, other.values, sampleAt(cut.engineSpeedRpm, at)),
  );
  const level = ratios.reduce((sum, ratio) => sum + ratio, 0) / ratios.length;
  if (!(level > 0) || !Number.isFinite(level)) return undefined;
  const beyond = other.engineSpeedRpm.filter((rpm) => rpm >= end);
  return {
    engineSpeedRpm: beyond,
    values: beyond.map((rpm) => level * interpolate(other.engineSpeedRpm, other.values, rpm)),
  };
}
