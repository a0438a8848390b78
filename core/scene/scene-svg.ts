import { scenePicture, type Picture, type Shape } from './picture.ts';
import type { Scene } from './scene.ts';

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
const [left, right, head, foot] = [70, 130, 120, 50];

/** The scene as one SVG that stands by itself: title, sentence, every lane as the screen draws it, how it was made. */
export function sceneSvg(scene: Scene, { title, sentence, made }: PictureWords, colour: ColourOf): string {
  const picture = scenePicture(scene, { width, laneHeight: () => laneHeight, left, right, letters: 14 });
  const bottom = head + picture.height;
  const [ink, soft] = ['var(--ink)', 'var(--soft)'];
  const around: Shape[] = [
    { is: 'words', x: left, y: 40, size: 22, words: title, colour: ink, heavy: true },
    ...inLines(sentence, 110).map((words, index): Shape => ({
      is: 'words',
      x: left,
      y: 68 + 22 * index,
      size: 17,
      words,
      colour: ink,
      heavy: true,
    })),
    ...inLines(made, 150).map((words, index): Shape => ({
      is: 'words',
      x: left,
      y: bottom + 20 + 17 * index,
      size: 13,
      words,
      colour: soft,
    })),
  ];
  const height = bottom + foot;
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}" font-family="Archivo Variable, Archivo, Helvetica, Arial, sans-serif">`,
    `<rect width="100%" height="100%" fill="${colour('var(--ground)')}"/>`,
    ...around.map((shape) => shapeSvg(shape, colour)),
    `<g transform="translate(0 ${head})">${shapesSvg(picture.shapes, colour)}</g>`,
    '</svg>',
  ].join('');
}

/** A picture as an SVG that stands by itself. */
export function pictureSvg({ width, height, shapes }: Picture, colour: ColourOf): string {
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}" font-family="Archivo Variable, Archivo, Helvetica, Arial, sans-serif"><rect width="100%" height="100%" fill="${colour('var(--ground)')}"/>${shapesSvg(shapes, colour)}</svg>`;
}

/** Shapes as the inside of an SVG. */
export function shapesSvg(shapes: readonly Shape[], colour: ColourOf): string {
  return shapes.map((shape) => shapeSvg(shape, colour)).join('');
}

/** A name that no other outline has: several pictures may stand in one page, where names are shared. FNV-1a, 32 bits. */
function outlineId(outline: string): string {
  let hash = 0x811c9dc5;
  for (let at = 0; at < outline.length; at++) hash = Math.imul(hash ^ outline.charCodeAt(at), 0x01000193);
  return `plot-${(hash >>> 0).toString(36)}`;
}

function shapeSvg(shape: Shape, colour: ColourOf): string {
  switch (shape.is) {
    case 'path':
      return `<path d="${shape.d}"${inkSvg(shape, colour)}${titled('path', shape.why)}`;
    case 'circle':
      return `<circle cx="${shape.x.toFixed(1)}" cy="${shape.y.toFixed(1)}" r="${shape.r}"${inkSvg(shape, colour)}${titled('circle', shape.why)}`;
    case 'line':
      return `<line x1="${shape.x1.toFixed(1)}" x2="${shape.x2.toFixed(1)}" y1="${shape.y1.toFixed(1)}" y2="${shape.y2.toFixed(1)}"${inkSvg(shape, colour)}/>`;
    case 'words':
      return `<text x="${shape.x.toFixed(1)}" y="${shape.y.toFixed(1)}" font-size="${shape.size}" fill="${colour(shape.colour)}"${shape.heavy ? ' font-weight="600"' : ''}${shape.anchor ? ` text-anchor="${shape.anchor}"` : ''}>${escaped(shape.words)}</text>`;
    case 'clipped': {
      const id = outlineId(shape.outline);
      return `<clipPath id="${id}"><path d="${shape.outline}"/></clipPath><g clip-path="url(#${id})">${shape.shapes.map((inner) => shapeSvg(inner, colour)).join('')}</g>`;
    }
  }
}

function inkSvg(
  {
    fill,
    stroke,
    strokeWidth,
    dash = [],
    opacity = 1,
  }: Pick<Extract<Shape, { is: 'path' }>, 'fill' | 'stroke' | 'strokeWidth' | 'dash' | 'opacity'>,
  colour: ColourOf,
): string {
  return [
    ` fill="${fill === undefined ? 'none' : colour(fill)}"`,
    stroke === undefined
      ? ''
      : ` stroke="${colour(stroke)}" stroke-width="${strokeWidth ?? 1}" stroke-linejoin="round"`,
    dash.length > 0 ? ` stroke-dasharray="${dash.join(' ')}"` : '',
    opacity === 1 ? '' : ` opacity="${opacity}"`,
  ].join('');
}

const titled = (element: string, why: string | undefined) =>
  why === undefined ? '/>' : `><title>${escaped(why)}</title></${element}>`;

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
