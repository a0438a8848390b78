import { sampleAt } from '../../numerics/sample-at.ts';
import { gridBetween } from '../../curve/grid.ts';
import type { MeanCurve } from '../../comparison/run-curve.ts';
import { interpolateAll } from '../../numerics/interpolation.ts';
import { Refusal } from '../../refusal.ts';
import { engineTorqueNm } from '../../curve/engine-torque.ts';

/** A power curve from elsewhere, for orientation. */
export interface BorrowedCurve {
  name: string;
  /** Where it comes from, in words. */
  origin: string;
  scale: 'crank' | 'wheels';
  /** Engine speed, rpm, rising, and power, kW. */
  points: readonly (readonly [number, number])[];
  /** A norm that is known by its peak alone, kW. */
  peakKw?: number | null;
  /** How far a curve that was traced may be off, half of its 95 % interval, kW. */
  errorKw?: number | null;
}

/** Whether it is one figure, and no curve. */
export function isPeakAlone(curve: BorrowedCurve): curve is BorrowedCurve & { peakKw: number } {
  return curve.points.length < 2 && typeof curve.peakKw === 'number';
}

/**
 * A borrowed curve on the grid of engine speed that runs share.
 * @throws Refusal when it covers less than two points of it
 */
export function borrowedRunCurves(
  { name, points }: BorrowedCurve,
  gridRpm: number,
): Record<'power' | 'torque', MeanCurve> {
  const rpm = Float64Array.from(points, ([at]) => at);
  const kw = Float64Array.from(points, ([, value]) => value);
  const engineSpeedRpm = gridBetween(sampleAt(rpm, 0), sampleAt(rpm, rpm.length - 1), gridRpm);
  if (engineSpeedRpm.length < 2)
    throw new Refusal(`The borrowed curve “${name}” covers less than ${2 * gridRpm} rpm: give more of its points.`);
  const values = interpolateAll(rpm, kw, engineSpeedRpm);
  return {
    power: { engineSpeedRpm, values },
    torque: {
      engineSpeedRpm,
      values: values.map((value, index) => engineTorqueNm(value, sampleAt(engineSpeedRpm, index))),
    },
  };
}
