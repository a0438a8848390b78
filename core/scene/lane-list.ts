import type { DrumGrouping } from '../dyno/drums.ts';
import { channelLabel } from '../recording/channels.ts';

/** The lanes that are there without an engine's log, in their usual order. */
export const figureLanes = ['power', 'torque', 'gain'] as const;

/** Those that tell several drums apart. */
export const drumLanes: Readonly<Record<string, DrumGrouping>> = {
  'power-by-wheel': 'wheel',
  'power-by-axle': 'axle',
  'power-by-side': 'side',
};
/** The grouping that a lane shows; undefined for one that shows none. */
export const groupingOf = (lane: string): DrumGrouping | undefined =>
  Object.hasOwn(drumLanes, lane) ? drumLanes[lane] : undefined;

/** How tall a lane stands beside the others. */
export function laneShare(lane: string): number {
  return lane === 'power' ? 1.5 : lane === 'torque' ? 1.05 : 1;
}

/** A list with one of its lanes moved up or down by one place. */
export function moved(lanes: readonly string[], lane: string, by: -1 | 1): string[] {
  const from = lanes.indexOf(lane);
  const to = from + by;
  if (from < 0 || to < 0 || to >= lanes.length) return [...lanes];
  const list = [...lanes];
  [list[from], list[to]] = [list[to]!, list[from]!];
  return list;
}

/** A list with one lane put in the place of another. */
export function placed(lanes: readonly string[], lane: string, before: string): string[] {
  if (lane === before) return [...lanes];
  const rest = lanes.filter((other) => other !== lane);
  const at = rest.indexOf(before);
  // Dragged down it takes the place after the one it is dropped on.
  const down = lanes.indexOf(lane) < lanes.indexOf(before);
  return [...rest.slice(0, at + (down ? 1 : 0)), lane, ...rest.slice(at + (down ? 1 : 0))];
}

/** As the address writes it; undefined for the usual list. */
export function laneWords(lanes: readonly string[]): string | undefined {
  return lanes.join('.') === figureLanes.join('.') ? undefined : lanes.join('.');
}

const figureNames: Record<string, string> = {
  power: 'Power',
  torque: 'Torque',
  gain: 'Gain',
  'power-by-wheel': 'Power by wheel',
  'power-by-axle': 'Power by axle',
  'power-by-side': 'Power by side',
};
/** A lane's name for a reader. */
export const laneName = (lane: string) =>
  (Object.hasOwn(figureNames, lane) ? figureNames[lane] : undefined) ?? channelLabel(lane);
