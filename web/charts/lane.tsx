import { CategoryScale, Chart, LinearScale, LineController, LineElement, PointElement, type Scale } from 'chart.js';
import { memo, useEffect, useRef } from 'react';
import { useCanvasColour } from './canvas-colour.ts';
import type { LaneDecoration, LaneLine } from '../../core/scene/lane.ts';
import { lanePlugin, type DrawnDecoration, type Trace } from './lane-drawing.ts';
import classes from './lane.module.css';
import type { ValueRange } from '../../core/scene/nice-range.ts';

Chart.register(LineController, LineElement, PointElement, LinearScale, CategoryScale, lanePlugin);

/** Room for the value axis; the same in every lane so that they stand under one another. */
export const axisWidth = 54;
/** Above the lines stands the lane's title, so that no line runs through it. */
const padding = { top: 22, bottom: 6 };

export interface LaneProps {
  name: string;
  /** Unit and whatever else must be known to read the axis. */
  unit: string;
  lines: LaneLine[];
  range: readonly [number, number];
  values: ValueRange;
  decoration?: LaneDecoration;
  /** What the lane shows, for those who cannot see it. */
  text: string;
}

const decorationColours = ['envelope', 'gainArea', 'upright', 'peak', 'head', 'markColours'] as const;

/** One quantity over the lanes' axis. Drawn anew only when it is given something else: a moving crosshair is not. */
export const Lane = memo(function Lane({ name, unit, lines, range, values, decoration, text }: LaneProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const chart = useRef<Chart<'line'> | null>(null);
  const drawn = useRef<{ lines: LaneLine[]; ink: string; traces: Trace[] }>(undefined);
  const colour = useCanvasColour();

  useEffect(
    () => () => {
      chart.current?.destroy();
      chart.current = null;
    },
    [],
  );

  useEffect(() => {
    // Chart.js draws in its constructor. Everything is set beforehand, or the lane would be laid out twice.
    const current = chart.current ?? emptyLane();
    // Datasets are made anew only for other lines or in another theme.
    const ink = colour('var(--ink)');
    if (drawn.current?.lines !== lines || drawn.current.ink !== ink) {
      current.data.datasets = datasetsOf(
        lines.filter((line) => !isBehind(line)),
        colour,
      );
      drawn.current = { lines, ink, traces: tracesOf(lines.filter(isBehind), colour) };
    }

    const { x, y } = current.options.scales as { x: Record<string, unknown>; y: Record<string, unknown> };
    Object.assign(x, { min: range[0], max: range[1] });
    Object.assign(y, { min: values.least, max: values.most, grid: grid(colour) });
    Object.assign(y.ticks as object, { color: colour('var(--soft)'), stepSize: values.step });
    (current.options.plugins as { lane?: DrawnDecoration }).lane = {
      ...(decoration && withCanvasColours(decoration, colour)),
      traces: drawn.current.traces,
      bandColour: colour('var(--band)'),
      gridColour: colour('var(--rule-soft)'),
    };
    if (current instanceof Chart) current.update('none');
    else if (canvas.current) chart.current = new Chart<'line'>(canvas.current, current);
  });

  return (
    <figure className={classes.lane}>
      <figcaption className={classes.name}>
        {name} <span>{unit}</span>
      </figcaption>
      <canvas ref={canvas} role="img" aria-label={text} />
    </figure>
  );
});

/** Single runs and points: many, with nothing to point at, so that they are no datasets but strokes of the plugin's. */
function isBehind({ opacity, points }: LaneLine): boolean {
  return points === true || (opacity ?? 1) < 1;
}

function tracesOf(lines: readonly LaneLine[], colour: (value: string) => string): Trace[] {
  return lines.map(({ x, values, colour: named, opacity = 1, width, dash, points }) => ({
    x,
    values,
    colour: colour(named),
    opacity,
    width,
    dash,
    points,
  }));
}

function datasetsOf(lines: readonly LaneLine[], colour: (value: string) => string) {
  return lines.map((line) => ({
    data: Array.from(line.x, (x, index) => ({ x, y: line.values[index]! })),
    borderColor: colour(line.colour),
    borderWidth: line.width,
    borderDash: line.dash ?? [],
    pointRadius: 0,
  }));
}

function withCanvasColours(
  decoration: Omit<LaneDecoration, 'bandColour' | 'gridColour' | 'traces'>,
  colour: (value: string) => string,
) {
  const result: Record<string, unknown> = { ...decoration };
  for (const key of decorationColours) {
    const part = decoration[key] as Record<string, unknown> | undefined;
    if (!part) continue;
    result[key] = Object.fromEntries(
      Object.entries(part).map(([field, value]) => [field, typeof value === 'string' ? colour(value) : value]),
    );
  }
  if (decoration.levels) result.levels = decoration.levels.map((level) => ({ ...level, colour: colour(level.colour) }));
  if (decoration.zeroColour) result.zeroColour = colour(decoration.zeroColour);
  return result;
}

function grid(colour: (value: string) => string) {
  return { color: colour('var(--rule-soft)'), drawTicks: false };
}

function emptyLane() {
  return {
    type: 'line' as const,
    data: { datasets: [] },
    options: {
      animation: false as const,
      parsing: false as const,
      normalized: true,
      responsive: true,
      maintainAspectRatio: false,
      events: [],
      layout: { padding },
      elements: { point: { radius: 0 }, line: { borderJoinStyle: 'round' as const } },
      scales: {
        x: {
          type: 'linear' as const,
          ticks: { display: false },
          grid: { display: false },
          border: { display: false },
          afterFit: (scale: { height: number }) => void (scale.height = 0),
        },
        y: {
          type: 'linear' as const,
          border: { display: false },
          afterFit: (scale: { width: number }) => void (scale.width = axisWidth),
          // Only round figures are labelled: the ends of a lane need not be round.
          afterBuildTicks: (scale: Scale) => {
            const step = (scale.options as unknown as { ticks: { stepSize?: number } }).ticks.stepSize;
            if (!step) return;
            const first = Math.ceil(scale.min / step - 1e-9);
            const last = Math.floor(scale.max / step + 1e-9);
            scale.ticks = Array.from({ length: Math.max(0, last - first + 1) }, (_, index) => ({
              value: (first + index) * step,
            }));
          },
          ticks: {
            font: { family: "'Archivo Variable'", size: 11.5 },
            padding: 9,
            callback: (value: number | string) => String(Number(Number(value).toFixed(6))).replace('-', '−'),
          },
        },
      },
      plugins: {},
    },
  };
}

/** Where a value lies in a lane of a given height, px from its top. */
export function heightOf(value: number, values: ValueRange, laneHeight: number): number {
  const plot = laneHeight - padding.top - padding.bottom;
  return padding.top + (1 - (value - values.least) / (values.most - values.least)) * plot;
}
