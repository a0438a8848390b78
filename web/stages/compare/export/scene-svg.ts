import { area, line as linePath } from 'd3-shape';
import { ticksOf } from '../../../charts/axis-step.ts';
import type { LaneLine } from '../../../charts/lane.tsx';
import { namesAtEnds } from '../../../charts/readings.ts';
import { isEmpty, type AxisRange, type EmptyLane, type Scene, type SceneLane } from '../../../charts/scene.ts';

/** What stands around the lanes of a picture. */
export interface PictureWords {
  title: string;
  sentence: string;
  /** How the figures were made. */
  made: string;
}

/** The theme's colour for a CSS colour, variables of the theme included. */
export type ColourOf = (css: string) => string;

const width = 1200;
const laneHeight = 230;
/** Room for a lane's name above its plot. */
const labelHeight = 22;
const [left, right, head, foot] = [70, 130, 120, 76];
const plotWidth = width - left - right;

/** The scene as one SVG that stands by itself: title, sentence, every lane as the screen draws it, how it was made. */
export function sceneSvg(scene: Scene, { title, sentence, made }: PictureWords, colour: ColourOf): string {
  const bottom = head + scene.lanes.length * laneHeight;
  const height = bottom + foot;
  const x = (at: number) => left + ((at - scene.range[0]) / (scene.range[1] - scene.range[0])) * plotWidth;
  const ticks = ticksOf(scene.range, scene.told).map(({ place, figure }) =>
    text(x(place), bottom + 18, 13, figure, `text-anchor="middle" fill="${colour('var(--soft)')}"`),
  );
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}" font-family="Archivo Variable, Archivo, Helvetica, Arial, sans-serif" fill="${colour('var(--ink)')}">`,
    '<defs>',
    ...scene.lanes.map((_, index) => `<clipPath id="plot-${index}"><rect x="${left}" y="${head + index * laneHeight + labelHeight}" width="${plotWidth}" height="${laneHeight - labelHeight}"/></clipPath>`), // prettier-ignore
    `<pattern id="loss" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)"><rect width="6" height="6" fill="${colour('var(--loss)')}" opacity="0.15"/><line x1="0" x2="0" y1="0" y2="6" stroke="${colour('var(--loss)')}" stroke-width="3" opacity="0.9"/></pattern></defs>`,
    `<rect width="100%" height="100%" fill="${colour('var(--ground)')}"/>`,
    text(left, 40, 22, title, 'font-weight="700"'),
    ...inLines(sentence, 110).map((words, index) => text(left, 68 + 22 * index, 17, words, 'font-weight="600"')),
    ...scene.lanes.map((lane, index) => drawnLane(lane, index, x, scene.range, colour)),
    ...ticks,
    text(width - right + 26, bottom + 18, 13, scene.told.unit, `fill="${colour('var(--soft)')}"`),
    ...inLines(made, 150).map((words, index) =>
      text(left, bottom + 46 + 17 * index, 13, words, `fill="${colour('var(--soft)')}"`),
    ),
    '</svg>',
  ].join('');
}

function drawnLane(
  lane: SceneLane | EmptyLane,
  row: number,
  x: (at: number) => number,
  range: AxisRange,
  colour: ColourOf,
): string {
  const top = head + row * laneHeight;
  if (isEmpty(lane)) return text(left, top + 14, 14, lane.why, `fill="${colour('var(--soft)')}"`);
  const { values, decoration } = lane;
  const [low, high] = [top + laneHeight - 14, top + labelHeight + 4];
  const y = (value: number) => low - ((value - values.least) / (values.most - values.least)) * (low - high);
  const { bands = [], levels = [], envelope, gainArea, peak, zeroColour } = decoration;
  const parts: string[] = [];
  for (const band of bands)
    parts.push(
      `<rect x="${x(band.from).toFixed(1)}" y="${high}" width="${(x(band.to) - x(band.from)).toFixed(1)}" height="${low - high}" fill="${colour('var(--band)')}" opacity="0.6"/>`,
    );
  for (let tick = values.least; tick <= values.most + 1e-9; tick += values.step) {
    const isZero = Math.abs(tick) < 1e-9 && zeroColour !== undefined;
    parts.push(
      `<line x1="${left}" x2="${width - right}" y1="${y(tick).toFixed(1)}" y2="${y(tick).toFixed(1)}" stroke="${colour(isZero ? 'var(--ink)' : 'var(--rule-soft)')}"/>`,
    );
  }
  for (const level of levels)
    parts.push(
      `<line x1="${left}" x2="${width - right}" y1="${y(level.value).toFixed(1)}" y2="${y(level.value).toFixed(1)}" stroke="${colour(level.colour)}" stroke-dasharray="6 4"/>`,
    );
  if (envelope)
    parts.push(
      `<path d="${between(envelope.x, envelope.low, envelope.high, x, y)}" fill="${colour(envelope.colour)}" opacity="0.15"/>`,
    );
  if (gainArea) {
    const zero = Array.from(gainArea.values, () => 0);
    const clipped = (keep: (value: number) => number) => Array.from(gainArea.values, keep);
    parts.push(
      `<path d="${between(
        gainArea.x,
        zero,
        clipped((value) => Math.max(0, value)),
        x,
        y,
      )}" fill="${colour(gainArea.gain)}" opacity="0.28"/>`,
      `<path d="${between(
        gainArea.x,
        zero,
        clipped((value) => Math.min(0, value)),
        x,
        y,
      )}" fill="url(#loss)"/>`,
    );
  }
  parts.push(...lane.lines.map((line) => drawnLine(line, range, x, y, colour)));
  if (peak && peak.x >= range[0] && peak.x <= range[1])
    parts.push(
      `<circle cx="${x(peak.x).toFixed(1)}" cy="${y(peak.value).toFixed(1)}" r="3.5" fill="${colour(peak.colour)}"/>`,
    );
  parts.push(
    ...lane.marks
      .filter((mark) => mark.x >= range[0] && mark.x <= range[1])
      .map((mark) => drawnMark(x(mark.x), y(mark.value), mark.severity, mark.why, colour)),
  );
  return [
    `<g clip-path="url(#plot-${row})">${parts.join('')}</g>`,
    text(left, top + 14, 14, `${lane.name}, ${lane.unit}`, 'font-weight="600"'),
    ...valueTicks(lane, y, colour),
    ...endNames(lane, range, y, low, colour),
  ].join('');
}

function valueTicks({ values }: SceneLane, y: (value: number) => number, colour: ColourOf): string[] {
  const count = Math.round((values.most - values.least) / values.step);
  return Array.from({ length: count + 1 }, (_, index) => {
    const tick = values.least + index * values.step;
    const words = String(Number(tick.toFixed(4))).replace('-', '−');
    return text(left - 8, y(tick) + 4, 12, words, `text-anchor="end" fill="${colour('var(--soft)')}"`);
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

function drawnLine(
  line: LaneLine,
  range: AxisRange,
  x: (at: number) => number,
  y: (value: number) => number,
  colour: ColourOf,
): string {
  const { x: at, values, points, width: strokeWidth, opacity = 1, dash = [] } = line;
  const ink = colour(line.colour);
  // One point beyond each side, so that a line reaches the edge.
  const inside = (index: number) => !(at[index + 1]! < range[0]) && !(at[index - 1]! > range[1]);
  const places = Array.from(at, (_, index) => index).filter((index) => Number.isFinite(values[index]) && inside(index));
  if (points)
    return places
      .map(
        (index) =>
          `<circle cx="${x(at[index]!).toFixed(1)}" cy="${y(values[index]!).toFixed(1)}" r="1.2" fill="${ink}" opacity="${opacity}"/>`,
      ) // prettier-ignore
      .join('');
  const path = linePath<number>(
    (index) => x(at[index]!),
    (index) => y(values[index]!),
  ).digits(1)(places);
  if (!path) return '';
  return `<path d="${path}" fill="none" stroke="${ink}" stroke-width="${strokeWidth}" stroke-linejoin="round" opacity="${opacity}"${dash.length > 0 ? ` stroke-dasharray="${dash.join(' ')}"` : ''}/>`;
}

/** A severity's own shape, with its reason for whoever points at it. */
function drawnMark(
  x: number,
  y: number,
  severity: SceneLane['marks'][number]['severity'],
  why: string,
  colour: ColourOf,
): string {
  const shape = {
    note: `<circle cx="${x.toFixed(1)}" cy="${y.toFixed(1)}" r="3"`,
    mind: `<path d="M${x.toFixed(1)},${(y - 7).toFixed(1)}l7,12h-14z"`,
    stop: `<path d="M${x.toFixed(1)},${(y - 7).toFixed(1)}l7,7l-7,7l-7,-7z"`,
  }[severity];
  const ink = colour(severity === 'stop' ? 'var(--stop)' : 'var(--ink)');
  return `${shape} fill="${ink}" stroke="${colour('var(--ground)')}" stroke-width="1.5"><title>${escaped(why)}</title></${severity === 'note' ? 'circle' : 'path'}>`;
}

/** Names beside the ends of their lines, never on one another. */
function endNames(
  lane: SceneLane,
  range: AxisRange,
  y: (value: number) => number,
  low: number,
  colour: ColourOf,
): string[] {
  const taken: number[] = [];
  return namesAtEnds(lane, range)
    .filter(({ value }) => Number.isFinite(value))
    .sort((a, b) => b.value - a.value)
    .map(({ label, value, colour: named }) => {
      let at = Math.min(low, y(value) + 4);
      while (taken.some((other) => Math.abs(other - at) < 16)) at += 4;
      taken.push(at);
      return text(width - right + 8, at, 14, label, `fill="${colour(named)}" font-weight="600"`);
    });
}

function text(at: number, top: number, size: number, words: string, more = ''): string {
  return `<text x="${at.toFixed(1)}" y="${top.toFixed(1)}" font-size="${size}" ${more}>${escaped(words)}</text>`;
}

/** Words in at most three lines of so many letters. */
function inLines(words: string, longest: number): string[] {
  const found: string[] = [''];
  for (const word of words.split(' ')) {
    if ((found.at(-1) + word).length > longest) found.push('');
    found[found.length - 1] += `${found.at(-1) ? ' ' : ''}${word}`;
  }
  return found.slice(0, 3);
}

function escaped(words: string): string {
  return words.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;');
}
