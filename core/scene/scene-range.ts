import { sampleAt } from '../numerics/sample-at.ts';
import type { LaneAxisId, Placing } from './lane-axis.ts';
import type { AxisRange } from './scene.ts';

/** A zoom narrower than this is none, rpm. */
const leastZoomRpm = 100;

/** Whole 500s around the speeds of all lines, rpm. */
export function speedRange(speeds: readonly Float64Array[]): AxisRange {
  const least = Math.min(...speeds.map((values) => sampleAt(values, 0)));
  const most = Math.max(...speeds.map((values) => sampleAt(values, values.length - 1)));
  return [Math.floor((least - 50) / 500) * 500, Math.ceil((most + 50) / 500) * 500];
}

/** The speeds asked for, as far as there are any. */
export function zoomedWithin(zoom: AxisRange | undefined, whole: AxisRange): AxisRange {
  if (!zoom) return whole;
  const [from, to] = [Math.max(whole[0], zoom[0]), Math.min(whole[1], zoom[1])];
  return to - from >= leastZoomRpm ? [from, to] : whole;
}

/** A range of engine speeds on the lanes' axis, as far as any of the lines goes. */
export function wholeOnAxis(rpm: AxisRange, places: readonly Placing[], axis: LaneAxisId): AxisRange {
  if (axis === 'engine-speed' || places.length === 0) return rpm;
  const ends = places.map((place) => [place.x(rpm[0]), place.x(rpm[1])] as const);
  const least = axis === 'time' ? 0 : Math.min(...ends.map(([from]) => from));
  const most = Math.max(...ends.map(([, to]) => to));
  const margin = 0.03 * (most - least);
  return [axis === 'time' ? 0 : least - margin, most + margin];
}
