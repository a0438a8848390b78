import { sampleAt } from '../numerics/sample-at.ts';
import { axisReadings, cellCount, dealerOf, noShares, type FuellingAxes, type PartLoadLog } from './axes.ts';
import { DelayModel } from './delay-model.ts';
import type { ProbeDelay } from './gas-way.ts';
import type { MixtureSeries } from './mixture.ts';

export interface FoundDelay extends ProbeDelay {
  /** Half width of the 95 % interval of both together, s. */
  halfWidthS: number;
  /** The mixture moved enough for the delay to be found. */
  known: boolean;
}

// Set by bench/fuelling.ts: the delay's error over drawn drives.
/** Both together are looked for up to here, s, in steps that are halved and halved again. */
const longestS = 0.9;
const coarseS = 0.06;
const fineS = 0.015;
const lags = [0.04, 0.1, 0.18];
const fineLags = [-0.02, 0, 0.02];
/** A table of more breakpoints than these is looked at in a coarser one while the delay is looked for. */
const mostCells = { across: 8, down: 6 };
/** λ is averaged over this time, s: noise from sample to sample goes, and what is left is whitened. */
const rowS = 0.1;
/** So much of a log is looked at, s. */
const lookedAtS = 240;
const leastRowsPerColumn = 8;
/** Found if its interval is no wider than this, s. */
const knownWithinS = 0.0245;
/** Fuel that the walls take and give back as the load moves fades within this time, s. */
const wallFilmS = 0.18;

/**
 * Delay of the λ probe from the data alone: with the right one, λ is best told
 * by the cell that the engine was in when the gas left it. For each transport
 * and lag λ is regressed on the shares of a coarse table's cells (times target,
 * less trims), moved by the transport and passed through the lag; the rate of
 * the load stands for fuel on the walls. The least residual wins; its
 * curvature gives the interval, with the residuals' correlation counted.
 *
 * @param wholeLeftOut samples (element not 0: left out, with what reaches the probe late of it)
 * @returns undefined where the log is too short or lacks an axis
 */
export function probeDelay(
  whole: PartLoadLog,
  axes: FuellingAxes,
  wholeMixture: MixtureSeries,
  wholeLeftOut: Uint8Array,
): FoundDelay | undefined {
  const [from, to] = liveliest(whole, axes);
  const part = (values: Float64Array) => values.subarray(from, to);
  const log: PartLoadLog = {
    time: part(whole.time),
    engineSpeedRpm: part(whole.engineSpeedRpm),
    channels: new Map(Array.from(whole.channels, ([name, values]) => [name, part(values)])),
  };
  const { lambda, target, trim, flow } = wholeMixture;
  const mixture = { lambda: part(lambda), target: part(target), trim: part(trim), flow: part(flow) };
  const leftOut = wholeLeftOut.subarray(from, to);
  const columns = sources(log, axes, mixture);
  if (!columns) return undefined;
  const rows = usableRows(log.time, mixture, leftOut);
  if (rows.length < leastRowsPerColumn * columns.length) return undefined;
  const model = new DelayModel(log.time, columns, mixture, rows);
  let best = { totalS: 0, lagS: 0, sum: Infinity };
  const look = (totalS: number, lagS: number) => {
    const sum = model.misfit(totalS, lagS);
    if (sum < best.sum) best = { totalS, lagS, sum };
  };
  const refine = (stepsS: readonly number[]) => {
    for (const stepS of stepsS) {
      const { totalS, lagS } = best;
      for (let step = -2; step <= 2; step++) for (const by of fineLags) look(totalS + step * stepS, lagS + by);
    }
  };
  for (let totalS = coarseS; totalS < longestS; totalS += coarseS) for (const lagS of lags) look(totalS, lagS);
  // What wanders slowly says nothing of the delay: it is taken out, and the best looked for anew.
  model.whiten(best.totalS, best.lagS);
  best = { ...best, sum: Infinity };
  refine([coarseS, 2 * fineS, fineS]);
  return curved(best, (totalS, lagS) => model.misfit(totalS, lagS), rows.length);
}

/** First and last sample (excluded) of the stretch in which the load moved most: a long drive need not be looked at whole. */
function liveliest({ time, ...log }: PartLoadLog, axes: FuellingAxes): readonly [number, number] {
  const count = time.length;
  const load = axisReadings({ time, ...log }, (axes.down ?? axes.across).channel);
  if (!load || sampleAt(time, count - 1) - sampleAt(time, 0) <= lookedAtS) return [0, count];
  const moved = new Float64Array(count);
  for (let index = 1; index < count; index++)
    moved[index] = sampleAt(moved, index - 1) + (Math.abs(sampleAt(load, index) - sampleAt(load, index - 1)) || 0);
  let best: readonly [number, number] = [0, count];
  let most = -1;
  let first = 0;
  for (let index = 0; index < count; index++) {
    while (sampleAt(time, index) - sampleAt(time, first) > lookedAtS) first++;
    if (
      sampleAt(time, index) - sampleAt(time, 0) < lookedAtS ||
      sampleAt(moved, index) - sampleAt(moved, first) <= most
    )
      continue;
    most = sampleAt(moved, index) - sampleAt(moved, first);
    best = [first, index + 1];
  }
  return best;
}

/** Half width by the curvature of the misfit along the whole delay, each with its best lag, and the parabola's own place. */
function curved(
  { totalS, lagS, sum }: { totalS: number; lagS: number; sum: number },
  misfit: (totalS: number, lagS: number) => number,
  effective: number,
): FoundDelay {
  const around = (at: number) => Math.min(...fineLags.map((by) => misfit(at, lagS + by)));
  const stepS = 2 * fineS;
  const [before, after] = [Math.log(around(totalS - stepS)), Math.log(around(totalS + stepS))];
  const bend = (before + after - 2 * Math.log(sum)) / stepS ** 2;
  const moved = Number.isFinite(bend) && bend > 0 ? (before - after) / (2 * stepS) / bend : 0;
  const place = totalS + Math.max(-fineS, Math.min(fineS, moved));
  // The likelihood's curvature: effective ÷ 2 times that of the misfit's logarithm.
  const halfWidthS = bend > 0 ? 1.96 / Math.sqrt((effective / 2) * bend) : Infinity;
  return { transportS: Math.max(0, place - lagS), lagS, halfWidthS, known: halfWidthS <= knownWithinS };
}

/** target ÷ trim, dealt to coarse cells, and the load's rate up and down. */
function sources(log: PartLoadLog, axes: FuellingAxes, mixture: MixtureSeries): Float64Array[] | undefined {
  const x = axisReadings(log, axes.across.channel);
  const y = axes.down ? axisReadings(log, axes.down.channel) : undefined;
  if (!x || (axes.down && !y)) return undefined;
  const coarse: FuellingAxes = {
    across: { ...axes.across, breakpoints: coarsened(axes.across.breakpoints, x, mostCells.across) },
    down: axes.down && y ? { ...axes.down, breakpoints: coarsened(axes.down.breakpoints, y, mostCells.down) } : null,
  };
  const count = log.time.length;
  const columns = Array.from({ length: cellCount(coarse) }, () => new Float64Array(count));
  const deal = dealerOf(coarse, { by: 'corners' });
  const shares = noShares();
  for (let index = 0; index < count; index++) {
    // A target that was not read leaves its rows out; here it stands for nothing.
    const base = sampleAt(mixture.target, index) / sampleAt(mixture.trim, index) || 1;
    deal(sampleAt(x, index), y?.[index] ?? 0, shares);
    for (let place = 0; place < shares.count; place++)
      columns[shares.cells[place]!]![index] = base * sampleAt(shares.shares, place);
  }
  const load = y ?? log.channels.get('throttle');
  return load ? [...columns, ...wallFilm(log.time, load)] : columns;
}

/** The breakpoints, or so many spread evenly over what was driven. */
function coarsened(breakpoints: readonly number[], values: Float64Array, count: number): readonly number[] {
  if (breakpoints.length <= count) return breakpoints;
  let [least, most] = [Infinity, -Infinity];
  for (const value of values) {
    if (value < least) least = value;
    if (value > most) most = value;
  }
  const step = Math.max(1e-6, (most - least) / (count - 1));
  return Array.from({ length: count }, (_, index) => least + index * step);
}

function wallFilm(time: Float64Array, load: Float64Array): Float64Array[] {
  const up = new Float64Array(time.length);
  const down = new Float64Array(time.length);
  for (let index = 1; index < time.length; index++) {
    const step = sampleAt(time, index) - sampleAt(time, index - 1);
    const rate = (sampleAt(load, index) - sampleAt(load, index - 1)) / step || 0;
    const kept = Math.exp(-step / wallFilmS);
    up[index] = kept * sampleAt(up, index - 1) + (1 - kept) * Math.max(0, rate);
    down[index] = kept * sampleAt(down, index - 1) + (1 - kept) * Math.min(0, rate);
  }
  return [up, down];
}

/** First and last sample (excluded) of each row: sound readings over a tenth of a second, with nothing in them that was left out. */
function usableRows(time: Float64Array, { lambda, target }: MixtureSeries, leftOut: Uint8Array): [number, number][] {
  const rows: [number, number][] = [];
  let cleanFrom = sampleAt(time, 0);
  let first = -1;
  for (let index = 0; index < time.length; index++) {
    const sound = leftOut[index] === 0 && !Number.isNaN(sampleAt(lambda, index) + sampleAt(target, index));
    if (!sound) cleanFrom = sampleAt(time, index) + longestS;
    if (sampleAt(time, index) < cleanFrom) first = -1;
    else if (first < 0) first = index;
    else if (sampleAt(time, index) - sampleAt(time, first) >= rowS - 1e-9) {
      rows.push([first, index]);
      first = index;
    }
  }
  return rows;
}
