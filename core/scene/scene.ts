import type { Told } from '../units/told-units.ts';
import type { LaneDecoration, LaneLine, LaneMark } from './lane.ts';
import type { ValueRange } from './nice-range.ts';
import type { LaneAxisId, Placing } from './lane-axis.ts';

/** From and to, on the lanes' axis. */
export type AxisRange = readonly [number, number];

/** What can be read of one line at the crosshair. */
export interface LaneReading {
  id: string;
  /** As the gutter calls it under the crosshair, and beside the line's end while there is none. */
  label: string;
  endName: string | undefined;
  colour: string;
  /** The line's own colour at a speed, where it says something there. */
  colourAt?: ((rpm: number) => string) | undefined;
  place: Placing;
  /** Engine speeds and values of the line, in the lane's unit. */
  rpm: Float64Array;
  values: Float64Array;
  write: (value: number) => string;
}

/** One quantity over the lanes' axis, whatever part of it is looked at. */
export interface LaneContent {
  id: string;
  lines: LaneLine[];
  readings: LaneReading[];
  /** What checks found, each on its line and with its reason. */
  marks: readonly (LaneMark & { severity: 'note' | 'mind' | 'stop' })[];
  decoration: LaneDecoration;
  /** The value axis for a part of the axis. */
  valuesWithin: (range: AxisRange) => ValueRange;
  name: string;
  /** Unit and whatever else must be known to read the value axis. */
  unit: (values: ValueRange) => string;
  /** Unit of a reading by itself, with what an estimate rests on. */
  readingUnit: string;
  /** What the lane shows, for those who cannot see it. */
  text: string;
}

/** In the place of a lane: why there is nothing to draw. */
export interface EmptyLane {
  id: string;
  why: string;
}

/** Everything that the lanes show, computed once for screen, paper, pictures and the clipboard. */
export interface SceneContent {
  axis: LaneAxisId;
  /** How places on the axis are told. */
  told: Told;
  lanes: readonly (LaneContent | EmptyLane)[];
  /** Where the compared setup's engine speeds stand on the axis: crosshair, band and zoom follow it. */
  place: Placing;
  /** The bands that matter, on the axis. */
  bands: readonly { from: number; to: number }[];
  /** The engine speeds of all lines, rpm, and the same on the axis. */
  wholeRpm: AxisRange;
  whole: AxisRange;
  /** Where the crosshair rests until it is moved: the power peak, rpm. */
  restRpm: number | undefined;
}

/** A lane with its axes: what is drawn. */
export interface SceneLane extends Omit<LaneContent, 'valuesWithin' | 'unit'> {
  values: ValueRange;
  unit: string;
}

/** The part of the content that is looked at. */
export interface Scene {
  axis: LaneAxisId;
  told: Told;
  range: AxisRange;
  lanes: readonly (SceneLane | EmptyLane)[];
}

export function isEmpty(lane: SceneLane | LaneContent | EmptyLane): lane is EmptyLane {
  return 'why' in lane;
}

/** The content within a range of the axis. Lines stay the same objects, so that a zoom need not hand them over again. */
export function framed(
  { axis, told, lanes, bands }: Pick<SceneContent, 'axis' | 'told' | 'lanes' | 'bands'>,
  range: AxisRange,
): Scene {
  return {
    axis,
    told,
    range,
    lanes: lanes.map((lane) => {
      if (isEmpty(lane)) return lane;
      const { valuesWithin, unit, ...rest } = lane;
      const values = valuesWithin(range);
      return { ...rest, values, unit: unit(values), decoration: { ...rest.decoration, bands } };
    }),
  };
}

/** Least and greatest value of lines within a range; 0 and 1 where they have none there. */
export function extentOf(lines: readonly LaneLine[], range: AxisRange): [number, number] {
  let [least, most] = [Infinity, -Infinity];
  for (const { x, values } of lines) {
    for (let index = 0; index < values.length; index++) {
      if (x[index]! < range[0] || x[index]! > range[1]) continue;
      least = Math.min(least, values[index]!);
      most = Math.max(most, values[index]!);
    }
  }
  return least <= most ? [least, most] : [0, 1];
}
