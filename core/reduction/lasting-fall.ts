import { firstNotBelow, interpolate, interpolateAll } from '../numerics/interpolation.ts';
import { pickedAt, seriesOf } from '../numerics/picked.ts';
import { solveInPlace } from '../numerics/small-system.ts';
import { fallCorners } from './fall-corners.ts';
import type { FallShape } from './fall-shape.ts';

/** Torque that falls within a few hundred rpm to a lower level and stays there to the end of the pull. */
export interface LastingFall {
  /** Where it begins and ends, s and rpm. */
  fromS: number;
  toS: number;
  fromRpm: number;
  toRpm: number;
  /** What is left of the torque, as a share. */
  share: number;
  /** How it falls. */
  shape: FallShape;
}

// Set by bench/checks.ts: no false alarm on healthy pulls, most hits on faulty ones.
/** Torque is taken over cells of this width, rpm, or of this time, s, whichever is longer. */
const cellRpm = 20;
const cellS = 0.025;
/** A fall is as wide as one of these, rpm; what takes longer is the engine's own curve. */
const widthsRpm = [40, 80, 120, 160, 200, 260, 320, 400];
/** So much of the pull to each side tells how torque runs there: at most, rpm or a share of the whole range, and at least, rpm. */
const sideRpm = 500;
const sideShare = 0.12;
const leastSideRpm = 160;
/** What is lost beyond the slopes on both sides counts from this share of torque … */
const leastLost = 0.09;
/** … and this many times its own standard error. */
const sure = 7;
/** The last of the pull is not looked at, s: a load cell lags when an absorber lets go. */
const endS = 0.15;
/** Power falls in it by this share at least. */
const leastPowerLost = 0.05;
/** Just before it, and just after: over so much, rpm. */
const nearRpm = 100;
/** Torque after it may fall with engine speed by this much more than before it, as powers of speed: at one power it is 1. */
const steeperAfter = 1.3;
/** It has not come back while no more than this share of what was lost is there again. */
const stillGone = 0.5;

/**
 * Finds a fall of torque that stays: two straight lines with a ramp between
 * them fit the torque around it, and the ramp is far more than the lines
 * explain.
 *
 * @param rpm engine speed at each time
 * @param impulse N·m·s; only first…last (both included) is looked at
 */
export function lastingFall(
  time: Float64Array,
  rpm: Float64Array,
  impulse: Float64Array,
  first: number,
  last: number,
): LastingFall | undefined {
  const until = firstNotBelow(time, time[last]! - endS);
  const cells = new Cells(time, rpm, impulse, first, until);
  const { count, widthRpm } = cells;
  const side = Math.max(3, Math.round(leastSideRpm / widthRpm));
  let best: { from: number; width: number; lost: number; before: number; sure: number } | undefined;
  for (const width of new Set(widthsRpm.map((wide) => Math.max(1, Math.round(wide / widthRpm))))) {
    for (let from = side; from + width + side < count; from++) {
      // In a healthy pull most places are dismissed by comparing the means of both sides.
      if (cells.mean(from + width, side) > (1 - leastLost / 2) * cells.mean(from - side, side)) continue;
      const fit = cells.rampFit(from, width);
      if (!fit || fit.sure < sure) continue;
      if (!best || fit.sure > best.sure) best = { from, width, ...fit };
    }
  }
  if (!best) return undefined;
  const { from, width, lost, before } = best;
  const back = before - (1 - stillGone) * lost;
  for (let cell = from + width; cell + side <= count; cell++) if (cells.mean(cell, side) > back) return undefined;
  const shape = fallCorners(time, rpm, impulse, [first, until], [cells.rpmAt(from), cells.rpmAt(from + width)]);
  const { fromRpm, toRpm } = shape;
  return { fromS: cells.passedS(fromRpm), toS: cells.passedS(toRpm), fromRpm, toRpm, share: 1 - lost / before, shape };
}

/** Number of terms of the fit, and the pivot below which its system counts as singular. */
const terms = 4;
const singular = 1e-9;

/** Mean torque over even steps of engine speed, with sums that make a fit to any stretch of them cheap. */
class Cells {
  readonly count: number;
  readonly widthRpm: number;
  private readonly rising: { rpm: Float64Array; time: Float64Array };
  /** Sums of torque, of torque × place and of torque² over the cells before each. */
  private readonly sums: readonly [Float64Array, Float64Array, Float64Array];

  constructor(time: Float64Array, rpm: Float64Array, impulse: Float64Array, first: number, last: number) {
    // A speed that is passed more than once counts from the last time.
    const rising: number[] = [];
    let lowest = Infinity;
    for (let index = last; index >= first; index--) {
      if (!(rpm[index]! < lowest)) continue;
      rising.push(index);
      lowest = rpm[index]!;
    }
    rising.reverse();
    const [x, t, p] = [pickedAt(rpm, rising), pickedAt(time, rising), pickedAt(impulse, rising)];
    const [from, to] = [x[0] ?? 0, x[x.length - 1] ?? 0];
    const rate = (to - from) / Math.max(1e-9, (t[t.length - 1] ?? 0) - (t[0] ?? 0));
    this.widthRpm = Math.max(cellRpm, rate * cellS);
    this.count = Math.max(0, Math.floor((to - from) / this.widthRpm));
    this.rising = { rpm: x, time: t };
    const edges = seriesOf(this.count + 1, (cell) => this.rpmAt(cell));
    const passed = interpolateAll(x, t, edges);
    const given = interpolateAll(x, p, edges);
    const sum = () => new Float64Array(this.count + 1);
    const [of, placed, squared] = [sum(), sum(), sum()];
    for (let cell = 0; cell < this.count; cell++) {
      const torque = (given[cell + 1]! - given[cell]!) / (passed[cell + 1]! - passed[cell]!);
      of[cell + 1] = of[cell]! + torque;
      placed[cell + 1] = placed[cell]! + torque * (cell + 0.5);
      squared[cell + 1] = squared[cell]! + torque * torque;
    }
    this.sums = [of, placed, squared];
  }

  /** Engine speed at which a cell begins. */
  rpmAt(cell: number): number {
    return (this.rising.rpm[0] ?? 0) + cell * this.widthRpm;
  }

  /** When an engine speed was passed, s. */
  passedS(rpm: number): number {
    return interpolate(this.rising.rpm, this.rising.time, rpm);
  }

  mean(from: number, cells: number): number {
    const [of] = this.sums;
    return (of[from + cells]! - of[from]!) / cells;
  }

  /** Least squares of a line, a ramp from `from` over `width` cells, and a bend after it: torque before, what the ramp takes, and how sure that is; undefined where it takes too little. */
  rampFit(from: number, width: number): { lost: number; before: number; sure: number } | undefined {
    const side = Math.round(Math.max(sideRpm / this.widthRpm, sideShare * this.count));
    const [first, end] = [Math.max(0, from - side), Math.min(this.count, from + width + side)];
    const a = this.part(first, from, from);
    const b = this.part(from, from + width, from);
    const c = this.part(from + width, end, from);
    const u = a.u + b.u + c.u;
    const y = a.y + b.y + c.y;
    const uy = a.uy + b.uy + c.uy;
    // Columns: 1, place, ramp (place ÷ width, then 1), bend (place − width after the ramp).
    const ramp = b.u / width + c.n;
    const placedRamp = b.uu / width + c.u;
    const bend = c.u - width * c.n;
    const placedBend = c.uu - width * c.u;
    const normal = Float64Array.of(
      end - first,
      u,
      ramp,
      bend,
      u,
      a.uu + b.uu + c.uu,
      placedRamp,
      placedBend,
      ramp,
      placedRamp,
      b.uu / width ** 2 + c.n,
      bend,
      bend,
      placedBend,
      bend,
      c.uu - 2 * width * c.u + width ** 2 * c.n,
    );
    const right = Float64Array.of(y, uy, b.uy / width + c.y, c.uy - width * c.y);
    const found = right.slice();
    if (!solveInPlace(normal.slice(), terms, terms, found, singular)) return undefined;
    const [before, lost] = [found[0]!, -found[2]!];
    // Almost every place of a pull is dismissed here: a ramp there takes too little.
    if (lost < leastLost * before) return undefined;
    // What a curve that falls on loses at its corner is in its slope after it: the step must be there beside the torque
    // that was read just before it and a power of speed, as at constant power, continued back from after it.
    const [slope, turn] = [found[1]!, found[3]!];
    const atCell = (cell: number) => before + slope * (cell - from) - lost + turn * Math.max(0, cell - from - width);
    const middle = (from + width + end) / 2;
    const powerOf = (perCell: number, torque: number, cell: number) =>
      (perCell * (this.rpmAt(cell) / this.widthRpm)) / torque;
    const after = powerOf(slope + turn, atCell(middle), middle);
    if (!(atCell(middle) > 0) || after < Math.min(0, powerOf(slope, before, from)) - steeperAfter) return undefined;
    const near = Math.min(from, Math.max(1, Math.round(nearRpm / this.widthRpm)));
    const continued = atCell(middle) * (this.rpmAt(from - near / 2) / this.rpmAt(middle)) ** after;
    const justBefore = this.mean(from - near, near);
    if (justBefore - continued < leastLost * before) return undefined;
    // Where torque falls because power is held, power does not.
    const beyond = Math.min(near, this.count - from - width);
    const powerLeft =
      (this.mean(from + width, beyond) * this.rpmAt(from + width + beyond / 2)) /
      (justBefore * this.rpmAt(from - near / 2));
    if (powerLeft > 1 - leastPowerLost) return undefined;
    const ofRamp = Float64Array.of(0, 0, 1, 0);
    if (!solveInPlace(normal, terms, terms, ofRamp, singular)) return undefined;
    const [, , squared] = this.sums;
    const left = squared[end]! - squared[first]! - found.reduce((sum, value, index) => sum + value * right[index]!, 0);
    const error = Math.sqrt((Math.max(0, left) / (end - first - terms)) * ofRamp[2]!);
    return { before, lost, sure: lost / Math.max(error, 1e-9) };
  }

  /** Sums over a stretch, places counted from a cell. */
  private part(from: number, to: number, origin: number) {
    const [of, placed] = this.sums;
    const n = to - from;
    const [low, high] = [from - origin, to - origin];
    // Sums of (k + ½) and (k + ½)² over whole k.
    const u = (high * high - low * low) / 2;
    const uu = (high ** 3 - low ** 3) / 3 - n / 12;
    const y = of[to]! - of[from]!;
    return { n, u, uu, y, uy: placed[to]! - placed[from]! - origin * y };
  }
}
