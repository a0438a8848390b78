import { getStroke } from 'perfect-freehand';

/** The field that is signed in, in its own units. */
export const signatureSize = { width: 600, height: 200 } as const;

type Stroke = readonly (readonly [number, number, number])[];

/** The lines of a hand as outlines to be filled: paths of an SVG. Thicker where it was slower or pressed harder. */
export function signaturePaths(strokes: readonly Stroke[]): string[] {
  return strokes.map((points) => {
    const outline = getStroke(
      points.map(([x, y, pressure]) => [x, y, pressure]),
      { size: 5, thinning: 0.6, smoothing: 0.5, streamline: 0.4 },
    );
    const [first, ...rest] = outline;
    if (!first) return '';
    const at = ([x = 0, y = 0]: number[]) => `${x.toFixed(1)} ${y.toFixed(1)}`;
    return `M${at(first)}${rest.map((point) => `L${at(point)}`).join('')}Z`;
  });
}
