import type { Travel } from '../curve/travel.ts';
import { figureIn, toldIn, withUnit, type Told, type Units } from '../units/told-units.ts';
import { interpolate } from '../numerics/interpolation.ts';

/** What the lanes can stand over. Gains are always taken at the same engine speed, whatever they stand over. */
export const laneAxes = ['engine-speed', 'road-speed', 'time'] as const;
export type LaneAxisId = (typeof laneAxes)[number];

/** What each is called, and the unit that places on it are kept in. */
export const axisWords: Record<LaneAxisId, { name: string; unit: string }> = {
  'engine-speed': { name: 'engine speed', unit: 'rpm' },
  'road-speed': { name: 'road speed', unit: 'km/h' },
  time: { name: 'time', unit: 's' },
};

/** How places on an axis are told. */
export const toldAxis = (axis: LaneAxisId, units: Units): Told => toldIn(axisWords[axis].unit, units);

/** Where a line's engine speeds stand on the lanes' axis, and back. */
export interface Placing {
  x(rpm: number): number;
  xs(rpm: Float64Array): Float64Array;
  rpm(x: number): number;
}

export const unplaced: Placing = { x: (rpm) => rpm, xs: (rpm) => rpm, rpm: (x) => x };

/** A line that went another way through the speeds stands elsewhere on a time axis. */
export function placing(axis: LaneAxisId, travel: Travel | undefined, zeroRpm: number): Placing {
  const values = travel && (axis === 'time' ? travel.timeS : axis === 'road-speed' ? travel.roadSpeedKmh : undefined);
  if (!travel || !values) return unplaced;
  // Time counts from where all lines have begun.
  const zero = axis === 'time' ? interpolate(travel.engineSpeedRpm, values, zeroRpm) : 0;
  const x = (rpm: number) => interpolate(travel.engineSpeedRpm, values, rpm) - zero;
  return { x, xs: (rpm) => rpm.map(x), rpm: (at) => interpolate(values, travel.engineSpeedRpm, at + zero) };
}

/** What the crosshair says on the axis. */
export function axisText(x: number, { unit, of }: Told): string {
  return withUnit(figureIn(of(x), unit), unit);
}
