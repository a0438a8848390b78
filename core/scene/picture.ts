import { area, line as linePath } from 'd3-shape';
import { ticksOf } from './axis-step.ts';
import type { LaneLine } from './lane.ts';
import { namesAtEnds } from './readings.ts';
import { isEmpty, type AxisRange, type EmptyLane, type Scene, type SceneLane } from './scene.ts';

interface Ink {
  fill?: string;
  stroke?: string;
  strokeWidth?: number;
  dash?: readonly number[];
  opacity?: number;
}

/** One thing of a picture. Colours are those of the scene: who draws it knows the theme. Measures are of the picture. */
export type Shape =
  | ({ is: 'path'; d: string; /** Told to whoever points at it. */ why?: string } & Ink)
  | ({ is: 'line'; x1: number; y1: number; x2: number; y2: number } & Ink)
  | ({ is: 'circle'; x: number; y: number; r: number; why?: string } & Ink)
  | {
      is: 'words';
      x: number;
      y: number;
      size: number;
      words: string;
      colour: string;
      heavy?: boolean;
      anchor?: 'middle' | 'end';
    }
  /** Shapes that show within an outline alone. */
  | { is: 'clipped'; outline: string; shapes: readonly Shape[] };

/** How large a picture of lanes is. */
export interface PictureSize {
  width: number;
  /** Height of one lane as it stands in the list; power and the like may take more. */
  laneHeight: (lane: string) => number;
  /** Beside the lanes: value axis, names at the lines' ends. */
  left: number;
  right: number;
  /** Size of the letters of names; figures are a little smaller. */
  letters: number;
}

/** What a scene looks like: its shapes, and how tall it is. */
export interface Picture {
  width: number;
  height: number;
  shapes: Shape[];
}

/** Below the lanes: the axis with its figures. */
const axisHeight = 26;

/** The scene as shapes from which every drawing is made: on paper, in a file, in a document. */
export function scenePicture(scene: Scene, size: PictureSize): Picture {
  const { width, left, right, letters } = size;
  const plotWidth = width - left - right;
  const x = (at: number) => left + ((at - scene.range[0]) / (scene.range[1] - scene.range[0])) * plotWidth;
  let top = 0;
  const lanes = scene.lanes.flatMap((lane) => {
    const height = size.laneHeight(lane.id);
    const shapes = laneShapes(lane, { top, height, x, range: scene.range, size });
    top += height;
    return shapes;
  });
  const below = top + letters + 5;
  const axis = ticksOf(scene.range, scene.told).map(({ place, figure }): Shape => ({
    is: 'words',
    x: x(place),
    y: below,
    size: letters - 1,
    words: figure,
    colour: soft,
    anchor: 'middle',
  }));
  const unit: Shape = {
    is: 'words',
    x: width - right + 2 * letters,
    y: below,
    size: letters - 1,
    words: scene.told.unit,
    colour: soft,
  };
  return { width, height: top + axisHeight, shapes: [...lanes, ...axis, unit] };
}

const [ink, soft, ground, stop] = ['var(--ink)', 'var(--soft)', 'var(--ground)', 'var(--stop)'] as const;

interface Place {
  top: number;
  height: number;
  x: (at: number) => number;
  range: AxisRange;
  size: PictureSize;
}

function laneShapes(lane: SceneLane | EmptyLane, { top, height, x, range, size }: Place): Shape[] {
  const { width, left, right, letters } = size;
  const title = top + letters;
  if (isEmpty(lane)) return [{ is: 'words', x: left, y: title, size: letters, words: lane.why, colour: soft }];
  const { values, decoration } = lane;
  const [low, high] = [top + height - letters, top + 1.9 * letters];
  const y = (value: number) => low - ((value - values.least) / (values.most - values.least)) * (low - high);
  const across = (value: number, colour: string, more: Ink = {}): Shape => ({
    is: 'line',
    x1: left,
    x2: width - right,
    y1: y(value),
    y2: y(value),
    stroke: colour,
    strokeWidth: 1,
    ...more,
  });
  const { bands = [], levels = [], envelope, gainArea, peak, zeroColour } = decoration;
  const inside: Shape[] = bands.map(({ from, to }) => ({
    is: 'path',
    d: boxPath(x(from), high, x(to), low),
    fill: 'var(--band)',
    opacity: 0.6,
  }));
  for (let tick = values.least; tick <= values.most + 1e-9; tick += values.step)
    inside.push(across(tick, Math.abs(tick) < 1e-9 && zeroColour !== undefined ? ink : 'var(--rule-soft)'));
  inside.push(...levels.map(({ value, colour }) => across(value, colour, { dash: [6, 4] })));
  if (envelope)
    inside.push({
      is: 'path',
      d: between(envelope.x, envelope.low, envelope.high, x, y),
      fill: envelope.colour,
      opacity: 0.15,
    });
  if (gainArea) {
    const zero = Array.from(gainArea.values, () => 0);
    const kept = (keep: (value: number) => number) =>
      between(gainArea.x, zero, Array.from(gainArea.values, keep), x, y);
    inside.push({ is: 'path', d: kept((value) => Math.max(0, value)), fill: gainArea.gain, opacity: 0.28 });
    // Hatched, so that it is told from a gain in grey as well.
    if (Array.from(gainArea.values).some((value) => value < 0)) {
      const loss = kept((value) => Math.min(0, value));
      inside.push({ is: 'path', d: loss, fill: gainArea.loss, opacity: 0.15 });
      inside.push({ is: 'clipped', outline: loss, shapes: hatch(left, width - right, high, low, gainArea.loss) });
    }
  }
  inside.push(...lane.lines.flatMap((line) => lineShapes(line, range, x, y)));
  if (peak && isWithin(peak.x, range))
    inside.push({ is: 'circle', x: x(peak.x), y: y(peak.value), r: 3.5, fill: peak.colour });
  inside.push(
    ...lane.marks
      .filter((mark) => isWithin(mark.x, range))
      .map((mark) => markShape(x(mark.x), y(mark.value), mark.severity, mark.why)),
  );
  return [
    { is: 'clipped', outline: boxPath(left, top + 1.5 * letters, width - right, top + height), shapes: inside },
    { is: 'words', x: left, y: title, size: letters, words: lane.name, colour: ink, heavy: true },
    {
      is: 'words',
      x: left + 0.62 * letters * lane.name.length + 10,
      y: title,
      size: letters - 1,
      words: lane.unit,
      colour: soft,
    },
    ...valueTicks(lane, y, size),
    ...endNames(lane, range, y, low, size),
  ];
}

const isWithin = (at: number, [from, to]: AxisRange) => at >= from && at <= to;
const boxPath = (x1: number, y1: number, x2: number, y2: number) =>
  `M${x1.toFixed(1)},${y1.toFixed(1)}H${x2.toFixed(1)}V${y2.toFixed(1)}H${x1.toFixed(1)}Z`;

/** Slanting lines over an area. */
function hatch(left: number, right: number, high: number, low: number, colour: string): Shape[] {
  const tall = low - high;
  const count = Math.ceil((right - left + tall) / 6);
  return Array.from({ length: count }, (_, index) => ({
    is: 'line',
    x1: left + 6 * index - tall,
    y1: low,
    x2: left + 6 * index,
    y2: high,
    stroke: colour,
    strokeWidth: 1.6,
    opacity: 0.9,
  }));
}

function valueTicks({ values }: SceneLane, y: (value: number) => number, { left, letters }: PictureSize): Shape[] {
  const count = Math.round((values.most - values.least) / values.step);
  return Array.from({ length: count + 1 }, (_, index): Shape => {
    const tick = values.least + index * values.step;
    const words = String(Number(tick.toFixed(4))).replace('-', '−');
    return {
      is: 'words',
      x: left - 8,
      y: y(tick) + 0.3 * letters,
      size: letters - 2,
      words,
      colour: soft,
      anchor: 'end',
    };
  });
}

/** The area between two curves. */
function between(
  at: ArrayLike<number>,
  low: ArrayLike<number>,
  high: ArrayLike<number>,
  x: (at: number) => number,
  y: (value: number) => number,
): string {
  const places = Array.from(at, (_, index) => index);
  const shape = area<number>(
    (index) => x(at[index]!),
    (index) => y(low[index]!),
    (index) => y(high[index]!),
  )
    .defined((index) => Number.isFinite(low[index]) && Number.isFinite(high[index]))
    .digits(1);
  return shape(places) ?? '';
}

function lineShapes(
  { x: at, values, points, width, opacity = 1, dash = [], colour }: LaneLine,
  range: AxisRange,
  x: (at: number) => number,
  y: (value: number) => number,
): Shape[] {
  // One point beyond each side, so that a line reaches the edge.
  const inside = (index: number) => !(at[index + 1]! < range[0]) && !(at[index - 1]! > range[1]);
  const places = Array.from(at, (_, index) => index).filter((index) => Number.isFinite(values[index]) && inside(index));
  if (points)
    return places.map((index): Shape => ({
      is: 'circle',
      x: x(at[index]!),
      y: y(values[index]!),
      r: 1.2,
      fill: colour,
      opacity,
    }));
  const d = linePath<number>(
    (index) => x(at[index]!),
    (index) => y(values[index]!),
  ).digits(1)(places);
  return d ? [{ is: 'path', d, stroke: colour, strokeWidth: width, opacity, dash }] : [];
}

/** A severity's own shape, with its reason for whoever points at it. */
function markShape(x: number, y: number, severity: SceneLane['marks'][number]['severity'], why: string): Shape {
  const look = { fill: severity === 'stop' ? stop : ink, stroke: ground, strokeWidth: 1.5, why };
  if (severity === 'note') return { is: 'circle', x, y, r: 3, ...look };
  const outline = severity === 'mind' ? 'l7,12h-14z' : 'l7,7l-7,7l-7,-7z';
  return { is: 'path', d: `M${x.toFixed(1)},${(y - 7).toFixed(1)}${outline}`, ...look };
}

/** Names beside the ends of their lines, never on one another. */
function endNames(
  lane: SceneLane,
  range: AxisRange,
  y: (value: number) => number,
  low: number,
  size: PictureSize,
): Shape[] {
  const { width, right, letters } = size;
  const taken: number[] = [];
  return namesAtEnds(lane, range)
    .filter(({ value }) => Number.isFinite(value))
    .sort((a, b) => b.value - a.value)
    .map(({ label, value, colour }): Shape => {
      let at = Math.min(low, y(value) + 0.3 * letters);
      while (taken.some((other) => Math.abs(other - at) < letters + 2)) at += 4;
      taken.push(at);
      return { is: 'words', x: width - right + 8, y: at, size: letters, words: label, colour, heavy: true };
    });
}
