import { sampleAt } from '../numerics/sample-at.ts';
import { interpolate } from '../numerics/interpolation.ts';
import { bandMean } from './band-mean.ts';
import { peakOf } from './peak.ts';

/** What a figure can be asked for that one setup makes: of which curve, and where on it. */
export type FigureQuantity =
  | 'peak power'
  | 'peak torque'
  | 'peak boost'
  | 'mean power'
  | 'mean torque'
  | 'power at'
  | 'torque at'
  | 'boost at';

export interface AskedFigure {
  quantity: FigureQuantity;
  /** The range of a mean, or the speed of a figure at one, rpm; null: all that was driven. */
  fromRpm: number | null;
  toRpm: number | null;
}

/** Which curve a quantity is read from. */
export function curveNamed(quantity: FigureQuantity): 'power' | 'torque' | 'boost' {
  if (quantity.includes('torque')) return 'torque';
  return quantity.includes('boost') ? 'boost' : 'power';
}

/** The unit that a quantity is kept in. */
export function unitOfFigure(quantity: FigureQuantity): 'kW' | 'N·m' | 'kPa' {
  return ({ power: 'kW', torque: 'N·m', boost: 'kPa' } as const)[curveNamed(quantity)];
}

/** @returns undefined where the curve is not there, or does not cover what is asked for */
export function askedFigure(
  { quantity, fromRpm, toRpm }: AskedFigure,
  curve: { engineSpeedRpm: Float64Array; values: Float64Array } | undefined,
): number | undefined {
  if (!curve || curve.values.length === 0) return undefined;
  const { engineSpeedRpm: rpm, values } = curve;
  const [least, most] = [sampleAt(rpm, 0), sampleAt(rpm, rpm.length - 1)];
  const [from, to] = [fromRpm ?? least, toRpm ?? most];
  if (quantity.startsWith('peak')) return peakOf(rpm, values).value;
  if (quantity.endsWith(' at')) return from >= least && from <= most ? interpolate(rpm, values, from) : undefined;
  return from >= least && to <= most && to > from ? bandMean(rpm, values, from, to) : undefined;
}
