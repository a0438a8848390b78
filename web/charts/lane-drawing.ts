import type { LaneDecoration } from '../../core/scene/lane.ts';
import type { Chart, Plugin } from 'chart.js';
import { axisStep } from '../../core/scene/axis-step.ts';

/** A line or points behind the lines, with its colour ready for the canvas. */
export interface Trace {
  x: ArrayLike<number>;
  values: ArrayLike<number>;
  colour: string;
  opacity: number;
  width: number;
  dash?: number[] | undefined;
  points?: boolean | undefined;
}

/** What a lane shows beside its lines. Colours are ready for the canvas. */
export interface DrawnDecoration extends LaneDecoration {
  traces?: readonly Trace[] | undefined;
  bandColour: string;
  gridColour: string;
}

declare module 'chart.js' {
  interface PluginOptionsByType<TType> {
    lane?: TType extends string ? DrawnDecoration : never;
  }
}

function decorationOf(chart: Chart): DrawnDecoration | undefined {
  return (chart.options.plugins as { lane?: DrawnDecoration } | undefined)?.lane;
}

/** Draws a lane's decoration: areas under the lines, marks over them. */
export const lanePlugin: Plugin<'line'> = {
  id: 'lane',
  beforeDatasetsDraw(chart) {
    const lane = decorationOf(chart);
    if (!lane) return;
    const { ctx, chartArea } = chart;
    ctx.save();
    ctx.beginPath();
    ctx.rect(chartArea.left, chartArea.top, chartArea.width, chartArea.height);
    ctx.clip();
    drawUprights(chart, lane.gridColour);
    for (const band of lane.bands ?? []) drawBand(chart, band, lane.bandColour);
    if (lane.envelope) drawEnvelope(chart, lane.envelope);
    if (lane.gainArea) drawGain(chart, lane.gainArea);
    if (lane.zeroColour) {
      const zero = Math.round(scale(chart, 'y').getPixelForValue(0)) + 0.5;
      stroke(ctx, lane.zeroColour, 1.4, [], [chartArea.left, zero], [chartArea.right, zero]);
    }
    for (const { value, colour } of lane.levels ?? []) {
      const level = Math.round(y(chart, value)) + 0.5;
      stroke(ctx, colour, 1.2, [6, 4], [chartArea.left, level], [chartArea.right, level]);
    }
    for (const trace of lane.traces ?? []) drawTrace(chart, trace);
    ctx.restore();
  },
  afterDatasetsDraw(chart) {
    const lane = decorationOf(chart);
    if (!lane) return;
    if (lane.upright) drawUpright(chart, lane.upright);
    if (lane.peak) drawPeak(chart, lane.peak);
    if (lane.marks && lane.markColours) for (const mark of lane.marks) drawMark(chart, mark, lane.markColours);
    if (lane.head) dot(chart, lane.head, 5.5);
  },
};

/** A lane's scale; every lane has both. */
function scale(chart: Chart, axis: 'x' | 'y') {
  const found = chart.scales[axis];
  if (!found) throw new Error(`A lane was drawn without its ${axis} scale.`);
  return found;
}

const across = (chart: Chart, at: number) => scale(chart, 'x').getPixelForValue(at);
const y = (chart: Chart, value: number) => scale(chart, 'y').getPixelForValue(value);

/** Upright grid lines at the figures of the axis below, wherever the zoomed range begins. */
function drawUprights(chart: Chart, colour: string): void {
  const { min, max } = scale(chart, 'x');
  const step = axisStep([min, max]);
  for (let at = Math.ceil(min / step) * step; at <= max; at += step) {
    const left = Math.round(across(chart, at)) + 0.5;
    stroke(chart.ctx, colour, 1, [], [left, chart.chartArea.top], [left, chart.chartArea.bottom]);
  }
}

function drawBand(chart: Chart, band: { from: number; to: number }, colour: string): void {
  chart.ctx.fillStyle = colour;
  chart.ctx.globalAlpha = 0.6;
  chart.ctx.fillRect(
    across(chart, band.from),
    chart.chartArea.top,
    across(chart, band.to) - across(chart, band.from),
    chart.chartArea.height,
  );
  chart.ctx.globalAlpha = 1;
}

/** Kept cheap: sixty runs are drawn at every step of a zoom. */
function drawTrace(chart: Chart, { x, values, colour, opacity, width, dash = [], points }: Trace): void {
  const { ctx } = chart;
  const [across, up] = [scale(chart, 'x'), scale(chart, 'y')];
  // Both scales are linear: two positions give all others.
  const [left, top] = [across.getPixelForValue(0), up.getPixelForValue(0)];
  const [perX, perY] = [across.getPixelForValue(1) - left, up.getPixelForValue(1) - top];
  ctx.globalAlpha = opacity;
  ctx.strokeStyle = ctx.fillStyle = colour;
  ctx.lineWidth = width;
  ctx.setLineDash(dash);
  ctx.beginPath();
  for (let index = 0; index < x.length; index++) {
    // One point beyond each side, so that a line reaches the edge.
    if (x[index + 1]! < across.min || x[index - 1]! > across.max) continue;
    const [atX, atY] = [left + perX * x[index]!, top + perY * values[index]!];
    if (points) ctx.fillRect(atX - 1.2, atY - 1.2, 2.4, 2.4);
    else ctx.lineTo(atX, atY);
  }
  if (!points) ctx.stroke();
  ctx.setLineDash([]);
  ctx.globalAlpha = 1;
}

function drawEnvelope(chart: Chart, envelope: NonNullable<LaneDecoration['envelope']>): void {
  const { ctx } = chart;
  ctx.beginPath();
  for (let index = 0; index < envelope.x.length; index++)
    ctx.lineTo(across(chart, envelope.x[index]!), y(chart, envelope.high[index]!));
  for (let index = envelope.x.length - 1; index >= 0; index--)
    ctx.lineTo(across(chart, envelope.x[index]!), y(chart, envelope.low[index]!));
  ctx.closePath();
  ctx.globalAlpha = 0.15;
  ctx.fillStyle = envelope.colour;
  ctx.fill();
  ctx.globalAlpha = 1;
}

function drawGain(chart: Chart, area: NonNullable<LaneDecoration['gainArea']>): void {
  const { ctx } = chart;
  const zero = y(chart, 0);
  const trace = (clip: (value: number) => number) => {
    ctx.beginPath();
    ctx.moveTo(across(chart, area.x[0]!), zero);
    for (let index = 0; index < area.x.length; index++)
      ctx.lineTo(across(chart, area.x[index]!), y(chart, clip(area.values[index]!)));
    ctx.lineTo(across(chart, area.x[area.x.length - 1]!), zero);
    ctx.closePath();
  };
  trace((value) => Math.max(0, value));
  ctx.globalAlpha = 0.28;
  ctx.fillStyle = area.gain;
  ctx.fill();
  ctx.globalAlpha = 1;
  trace((value) => Math.min(0, value));
  ctx.fillStyle = hatch(ctx, area.loss);
  ctx.fill();
}

/** Slanted lines: a loss is told from a gain without its colour. */
function hatch(ctx: CanvasRenderingContext2D, colour: string): CanvasPattern | string {
  const tile = document.createElement('canvas');
  tile.width = tile.height = 6;
  const pen = tile.getContext('2d');
  if (!pen) return colour;
  pen.fillStyle = colour;
  pen.globalAlpha = 0.15;
  pen.fillRect(0, 0, 6, 6);
  pen.globalAlpha = 0.9;
  pen.strokeStyle = colour;
  pen.lineWidth = 1.6;
  pen.beginPath();
  for (const shift of [-6, 0, 6]) {
    pen.moveTo(shift, 6);
    pen.lineTo(shift + 6, 0);
  }
  pen.stroke();
  return ctx.createPattern(tile, 'repeat') ?? colour;
}

function stroke(
  ctx: CanvasRenderingContext2D,
  colour: string,
  width: number,
  dash: number[],
  from: [number, number],
  to: [number, number],
): void {
  ctx.save();
  ctx.strokeStyle = colour;
  ctx.lineWidth = width;
  ctx.setLineDash(dash);
  ctx.beginPath();
  ctx.moveTo(...from);
  ctx.lineTo(...to);
  ctx.stroke();
  ctx.restore();
}

function drawUpright(chart: Chart, upright: NonNullable<LaneDecoration['upright']>): void {
  const { ctx, chartArea } = chart;
  const at = across(chart, upright.x);
  if (at < chartArea.left || at > chartArea.right) return;
  stroke(ctx, upright.colour, 1.5, [5, 4], [at, chartArea.top], [at, chartArea.bottom]);
  ctx.fillStyle = upright.colour;
  ctx.font = "600 12px 'Archivo Variable'";
  ctx.textAlign = 'right';
  ctx.fillText(upright.word, at - 6, chartArea.bottom - 6);
}

function drawPeak(chart: Chart, peak: NonNullable<LaneDecoration['peak']>): void {
  const { chartArea } = chart;
  const at = across(chart, peak.x);
  if (at < chartArea.left || at > chartArea.right) return;
  dot(chart, peak, 3.5);
}

/** A severity's own shape on the line, on a ground of its own so that it stays apart from it. */
function drawMark(
  chart: Chart,
  { x, value, severity }: NonNullable<LaneDecoration['marks']>[number],
  colours: NonNullable<LaneDecoration['markColours']>,
): void {
  const { ctx } = chart;
  const [left, top] = [across(chart, x), y(chart, value)];
  ctx.beginPath();
  if (severity === 'note') ctx.arc(left, top, 3, 0, 2 * Math.PI);
  else if (severity === 'mind') {
    ctx.moveTo(left, top - 7);
    ctx.lineTo(left + 7, top + 5);
    ctx.lineTo(left - 7, top + 5);
  } else {
    ctx.moveTo(left, top - 7);
    ctx.lineTo(left + 7, top);
    ctx.lineTo(left, top + 7);
    ctx.lineTo(left - 7, top);
  }
  ctx.closePath();
  ctx.lineWidth = 3;
  ctx.strokeStyle = colours.ground;
  ctx.stroke();
  ctx.fillStyle = severity === 'stop' ? colours.stop : colours.mind;
  ctx.fill();
}

function dot(chart: Chart, point: { x: number; value: number; colour: string }, radius: number): void {
  const { ctx } = chart;
  ctx.beginPath();
  ctx.arc(across(chart, point.x), y(chart, point.value), radius, 0, 2 * Math.PI);
  ctx.fillStyle = point.colour;
  ctx.fill();
}
