import { Refusal } from '../../refusal.ts';

/** A place in a picture, px from its upper left. */
export interface PicturePlace {
  x: number;
  y: number;
}

export interface Picture {
  width: number;
  height: number;
  /** Four bytes a pixel: red, green, blue, and how much it covers. */
  rgba: Uint8ClampedArray;
}

/** Two places of each axis with what the print says there. */
export interface AxisMarks {
  rpm: readonly (readonly [at: PicturePlace, rpm: number])[];
  value: readonly (readonly [at: PicturePlace, value: number])[];
}

/** From a place in a picture to engine speed and value, and how much a pixel is worth. */
export interface Calibration {
  read: (place: PicturePlace) => readonly [rpm: number, value: number];
  valuePerPx: number;
}

/** Two marks of an axis nearer than this, px, say too little. */
const leastApartPx = 20;
/** A picture may hang askew by so much: cosine of the angle between its axes, at most. */
const mostSkew = 0.35;

/**
 * Axes of a print from two marks each: along an axis what is read grows evenly,
 * and nothing of it across, so that a print that hangs askew is read right.
 * @throws Refusal where two marks of an axis lie together, say the same, or the axes run the same way
 */
export function calibrated({ rpm, value }: AxisMarks): Calibration {
  const along = axisOf(rpm, 'engine speed');
  const up = axisOf(value, 'power or torque');
  const cosine = along.direction.x * up.direction.x + along.direction.y * up.direction.y;
  if (Math.abs(cosine) > mostSkew) throw new Refusal('The two axes run the same way: mark two places on each of them.');
  return {
    read: (place) => {
      const [a, b] = solved(along, up, place);
      return [along.from + a * along.perPx, up.from + b * up.perPx];
    },
    valuePerPx: Math.abs(up.perPx),
  };
}

interface Axis {
  origin: PicturePlace;
  direction: PicturePlace;
  /** Read at the origin, and a px along. */
  from: number;
  perPx: number;
}

function axisOf(marks: readonly (readonly [PicturePlace, number])[], name: string): Axis {
  const [[a, from] = [undefined, NaN], [b, to] = [undefined, NaN]] = marks;
  if (!a || !b) throw new Refusal(`Mark two places on the axis of ${name}.`);
  const length = Math.hypot(b.x - a.x, b.y - a.y);
  if (length < leastApartPx) throw new Refusal(`The two places on the axis of ${name} lie too near together.`);
  if (!Number.isFinite(from) || !Number.isFinite(to) || from === to)
    throw new Refusal(`Say what stands at the two places of the axis of ${name}: two different figures.`);
  return {
    origin: a,
    direction: { x: (b.x - a.x) / length, y: (b.y - a.y) / length },
    from,
    perPx: (to - from) / length,
  };
}

/** How far along either axis a place lies, px, measured along the other one's direction. */
function solved(along: Axis, up: Axis, place: PicturePlace): [number, number] {
  const [u, v] = [along.direction, up.direction];
  const determinant = u.x * v.y - u.y * v.x;
  const part = (origin: PicturePlace, direction: 'along' | 'up') => {
    const [dx, dy] = [place.x - origin.x, place.y - origin.y];
    return direction === 'along' ? (dx * v.y - dy * v.x) / determinant : (u.x * dy - u.y * dx) / determinant;
  };
  return [part(along.origin, 'along'), part(up.origin, 'up')];
}

/** Colours farther apart than this (of 442) are not one line's. */
const usualTolerance = 90;
/** A line may be broken, dashed or crossed for so many px. */
const mostGapPx = 40;
/** From column to column a line moves no farther than this beside where it was going, px. */
const mostJumpPx = 9;

/**
 * Follows a line by its colour, column by column to both sides of a place that
 * was pressed on it; where another line crosses it keeps its way.
 * @returns the middle of the line in each column in which it was seen
 * @throws Refusal where nothing at the place differs from the paper
 */
export function tracedByColour(picture: Picture, pressed: PicturePlace, tolerance = usualTolerance): PicturePlace[] {
  const colour = lineColour(picture, pressed);
  const isLine = (x: number, y: number) => distance(pixel(picture, x, y), colour) < tolerance;
  const middle = (x: number, near: number): number | undefined => {
    let best: number | undefined;
    let from: number | undefined;
    for (let y = 0; y <= picture.height; y++) {
      const on = y < picture.height && isLine(x, y);
      if (on && from === undefined) from = y;
      if (on || from === undefined) continue;
      const centre = (from + y - 1) / 2;
      // A frame or a column of print is no line.
      if (y - from < picture.height / 8 && (best === undefined || Math.abs(centre - near) < Math.abs(best - near)))
        best = centre;
      from = undefined;
    }
    return best;
  };
  const start = middle(Math.round(pressed.x), pressed.y);
  if (start === undefined || Math.abs(start - pressed.y) > 15)
    throw new Refusal('No line was found there: press on the line itself.');
  const follow = (step: 1 | -1): PicturePlace[] => {
    const found: PicturePlace[] = [];
    let [last, slope, gap] = [{ x: Math.round(pressed.x), y: start }, 0, 0];
    for (let x = last.x + step; x >= 0 && x < picture.width && gap < mostGapPx; x += step) {
      const expected = last.y + slope * Math.abs(x - last.x);
      const y = middle(x, expected);
      if (y === undefined || Math.abs(y - expected) > mostJumpPx + 0.3 * gap) {
        gap++;
        continue;
      }
      // The direction is taken from the last stretch of the line, not from its last pixel.
      slope += 0.15 * ((y - last.y) / Math.abs(x - last.x) - slope);
      [last, gap] = [{ x, y }, 0];
      found.push(last);
    }
    return found;
  };
  return [...follow(-1).reverse(), { x: Math.round(pressed.x), y: start }, ...follow(1)];
}

type Colour = readonly [number, number, number];

function pixel({ width, rgba }: Picture, x: number, y: number): Colour {
  const at = 4 * (y * width + x);
  return [rgba[at]!, rgba[at + 1]!, rgba[at + 2]!];
}

const distance = (a: Colour, b: Colour) => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);

/** The pixel around the place that differs most from the paper; the paper is the colour of most pixels. */
function lineColour(picture: Picture, { x, y }: PicturePlace): Colour {
  const paper = paperColour(picture);
  let best: Colour = paper;
  for (let dy = -4; dy <= 4; dy++) {
    for (let dx = -2; dx <= 2; dx++) {
      const [atX, atY] = [Math.round(x) + dx, Math.round(y) + dy];
      if (atX < 0 || atY < 0 || atX >= picture.width || atY >= picture.height) continue;
      const here = pixel(picture, atX, atY);
      if (distance(here, paper) > distance(best, paper)) best = here;
    }
  }
  if (distance(best, paper) < 60) throw new Refusal('No line was found there: press on the line itself.');
  return best;
}

function paperColour(picture: Picture): Colour {
  const counts = new Map<number, number>();
  const every = Math.max(1, Math.floor((picture.width * picture.height) / 20_000));
  for (let at = 0; at < picture.width * picture.height; at += every) {
    const [red, green, blue] = [0, 1, 2].map((part) => picture.rgba[4 * at + part]! >> 4) as [number, number, number];
    const key = (red << 8) | (green << 4) | blue;
    counts.set(key, (counts.get(key) ?? 0) + 1);
  }
  const [key] = [...counts].reduce((most, one) => (one[1] > most[1] ? one : most), [0xfff, 0]);
  return [((key >> 8) & 15) * 16 + 8, ((key >> 4) & 15) * 16 + 8, (key & 15) * 16 + 8];
}

/** A curve read off a picture. */
export interface TracedCurve {
  /** rpm, rising, and what the axis tells. */
  points: [rpm: number, value: number][];
  /** Half of the 95 % interval that marks and tracing leave, in the axis' unit. */
  error: number;
}

/** A mark is set, and a place pressed, within so many px: standard deviation. */
const markPx = 1;
export const handPx = 1.5;
/** A traced curve holds no more points. */
const mostPoints = 150;
const z95 = 1.96;

/**
 * The curve of places that were traced.
 * @param placePx standard deviation of a place about the line, px; of a line followed by its colour its own scatter is taken
 * @throws Refusal where they cover too little
 */
export function tracedCurve(
  places: readonly PicturePlace[],
  { read, valuePerPx }: Calibration,
  placePx?: number,
): TracedCurve {
  const all = places
    .map(read)
    .filter(([rpm]) => rpm > 0 && rpm <= 30_000)
    .sort(([a], [b]) => a - b);
  const [first, last] = [all[0]?.[0] ?? 0, all.at(-1)?.[0] ?? 0];
  if (all.length < 2 || last - first < 200)
    throw new Refusal('The traced line covers less than 200 rpm: trace more of it.');
  const step = (last - first) / mostPoints;
  const bins = new Map<number, { rpm: number; value: number; count: number }>();
  for (const [rpm, value] of all) {
    const bin = placePx === undefined ? Math.floor((rpm - first) / step) : rpm;
    const before = bins.get(bin) ?? { rpm: 0, value: 0, count: 0 };
    bins.set(bin, { rpm: before.rpm + rpm, value: before.value + value, count: before.count + 1 });
  }
  const points = Array.from(bins.values(), ({ rpm, value, count }): [number, number] => [rpm / count, value / count]);
  const scatterPx = placePx ?? ownScatter(all) / valuePerPx;
  return { points, error: z95 * Math.hypot(markPx, scatterPx) * valuePerPx };
}

/** How far neighbours lie from the straight line between those beside them: half of it is a place's own scatter squared. */
function ownScatter(all: readonly (readonly [number, number])[]): number {
  let [sum, count] = [0, 0];
  for (let at = 1; at + 1 < all.length; at++) {
    sum += (all[at]![1] - (all[at - 1]![1] + all[at + 1]![1]) / 2) ** 2;
    count++;
  }
  return count === 0 ? 0 : Math.sqrt(sum / count / 1.5);
}
