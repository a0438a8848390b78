import { niceRange } from '../../charts/nice-range.ts';
import { axisStep } from '../../charts/axis-step.ts';

/** A line of a lane of the picture. */
export interface PictureLine {
  name: string;
  colour: string;
  width: number;
  rpm: ArrayLike<number>;
  values: ArrayLike<number>;
}

export interface PictureLane {
  title: string;
  lines: PictureLine[];
  zero?: boolean;
}

export interface Picture {
  title: string;
  sentence: string;
  /** How the figures were made. */
  made: string;
  range: readonly [number, number];
  lanes: PictureLane[];
  colours: { ground: string; ink: string; soft: string; rule: string };
}

const width = 1200;
const laneHeight = 230;
const [left, right, head] = [70, 130, 120];

/** What is seen, as one SVG that stands by itself: title, sentence, lanes with direct labels, how it was made. */
export function pictureSvg({ title, sentence, made, range, lanes, colours }: Picture): string {
  const height = head + lanes.length * laneHeight + 76;
  const x = (rpm: number) => left + ((rpm - range[0]) / (range[1] - range[0])) * (width - left - right);
  const text = (at: number, top: number, size: number, words: string, more = '') =>
    `<text x="${at.toFixed(1)}" y="${top.toFixed(1)}" font-size="${size}" ${more}>${escaped(words)}</text>`;
  const drawn = lanes.map((lane, index) => drawLane(lane, head + index * laneHeight, x, range, colours, text));
  const ticks: string[] = [];
  const bottom = head + lanes.length * laneHeight;
  for (let rpm = Math.ceil(range[0] / axisStep(range)) * axisStep(range); rpm <= range[1]; rpm += axisStep(range))
    ticks.push(
      text(x(rpm), bottom + 18, 13, rpm.toLocaleString('en-GB'), `text-anchor="middle" fill="${colours.soft}"`),
    );
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}" font-family="Archivo Variable, Archivo, Helvetica, Arial, sans-serif" fill="${colours.ink}"><rect width="100%" height="100%" fill="${colours.ground}"/>${text(left, 40, 22, title, 'font-weight="700"')}${lines(
    sentence,
    110,
  )
    .map((line, index) => text(left, 68 + 22 * index, 17, line, 'font-weight="600"'))
    .join(
      '',
    )}${drawn.join('')}${ticks.join('')}${text(width - right, bottom + 18, 13, ' rpm', `fill="${colours.soft}"`)}${lines(
    made,
    150,
  )
    .map((line, index) => text(left, bottom + 46 + 17 * index, 13, line, `fill="${colours.soft}"`))
    .join('')}</svg>`;
}

function drawLane(
  lane: PictureLane,
  top: number,
  x: (rpm: number) => number,
  range: readonly [number, number],
  colours: Picture['colours'],
  text: (at: number, top: number, size: number, words: string, more?: string) => string,
): string {
  let [least, most] = lane.zero ? [0, 0] : [Infinity, -Infinity];
  for (const { rpm, values } of lane.lines)
    for (let index = 0; index < values.length; index++) {
      if (rpm[index]! < range[0] || rpm[index]! > range[1] || Number.isNaN(values[index]!)) continue;
      least = Math.min(least, values[index]!);
      most = Math.max(most, values[index]!);
    }
  const scale = niceRange(least, most, 4);
  const [low, high] = [top + laneHeight - 14, top + 26];
  const y = (value: number) => low - ((value - scale.least) / (scale.most - scale.least)) * (low - high);
  const parts = [text(left, top + 14, 14, lane.title, 'font-weight="600"')];
  for (let tick = scale.least; tick <= scale.most + 1e-9; tick += scale.step) {
    const at = y(tick).toFixed(1);
    parts.push(
      `<line x1="${left}" x2="${width - right}" y1="${at}" y2="${at}" stroke="${Math.abs(tick) < 1e-9 && lane.zero ? colours.ink : colours.rule}"/>`,
    );
    parts.push(
      text(
        left - 8,
        y(tick) + 4,
        12,
        String(Number(tick.toFixed(4))).replace('-', '−'),
        `text-anchor="end" fill="${colours.soft}"`,
      ),
    );
  }
  const ends: number[] = [];
  for (const line of lane.lines) {
    const points: string[] = [];
    let last: [number, number] | undefined;
    for (let index = 0; index < line.rpm.length; index++) {
      if (line.rpm[index]! < range[0] || line.rpm[index]! > range[1] || Number.isNaN(line.values[index]!)) continue;
      last = [x(line.rpm[index]!), y(line.values[index]!)];
      points.push(`${last[0].toFixed(1)},${last[1].toFixed(1)}`);
    }
    parts.push(
      `<polyline points="${points.join(' ')}" fill="none" stroke="${line.colour}" stroke-width="${line.width}" stroke-linejoin="round"/>`,
    );
    if (!last || line.name === '') continue;
    // Labels beside the ends of their lines, never on one another.
    let at = last[1] + 4;
    while (ends.some((other) => Math.abs(other - at) < 16)) at += 4;
    ends.push(at);
    parts.push(text(width - right + 8, at, 14, line.name, `fill="${line.colour}" font-weight="600"`));
  }
  return parts.join('');
}

/** Words in lines of so many letters. */
function lines(words: string, longest: number): string[] {
  const found: string[] = [''];
  for (const word of words.split(' ')) {
    if ((found.at(-1) + word).length > longest) found.push('');
    found[found.length - 1] += `${found.at(-1) ? ' ' : ''}${word}`;
  }
  return found.slice(0, 3);
}

function escaped(text: string): string {
  return text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;');
}
