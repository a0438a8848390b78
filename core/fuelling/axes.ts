import { sampleAt } from '../numerics/sample-at.ts';
import type { FuellingAxes, FuellingAxis, FuellingAxisChannel } from '../setup/fuel-table.ts';
import { firstNotBelow } from '../numerics/interpolation.ts';
import { Refusal } from '../refusal.ts';

export type { FuellingAxes, FuellingAxis, FuellingAxisChannel };

/** What is needed of a log: its clock, its channels by name, and engine speed. */
export interface PartLoadLog {
  /** s, rising. */
  time: Float64Array;
  engineSpeedRpm: Float64Array;
  /** By the names of core/recording/channels.ts, in their units; NaN where nothing was read. */
  channels: ReadonlyMap<string, Float64Array>;
}

/** Revolutions of a four-stroke engine's cycle ÷ seconds of a minute. */
const secondsPerCycleRpm = 120;

/** Readings along an axis at each sample; undefined where the log does not have them. */
export function axisReadings(log: PartLoadLog, channel: FuellingAxisChannel): Float64Array | undefined {
  if (channel === 'engineSpeed') return log.engineSpeedRpm;
  if (channel !== 'airMassPerCycle') return log.channels.get(channel);
  return log.channels
    .get('airMassFlow')
    ?.map((gramsPerS, index) => (gramsPerS * secondsPerCycleRpm) / sampleAt(log.engineSpeedRpm, index));
}

export const cellCount = ({ across, down }: FuellingAxes): number =>
  across.breakpoints.length * (down?.breakpoints.length ?? 1);

/** @throws Refusal where breakpoints do not rise, or are too few or too many */
export function mustBeAxis({ breakpoints }: FuellingAxis): void {
  if (breakpoints.length < 2) throw new Refusal('An axis needs at least two breakpoints.');
  if (breakpoints.length > mostBreakpoints)
    throw new Refusal(`An axis may have ${mostBreakpoints} breakpoints, this one has ${breakpoints.length}.`);
  const at = breakpoints.findIndex((value, index) => !(value > (breakpoints[index - 1] ?? -Infinity)));
  if (at >= 0) throw new Refusal(`Breakpoints must rise: ${breakpoints[at]} stands after ${breakpoints[at - 1]}.`);
}
export const mostBreakpoints = 32;

/** How a sample is dealt to cells. */
export type Dealing =
  /** Among the corners around it, as a controller reads its table. */
  | { by: 'corners' }
  /** To one breakpoint, where it lies within this share of the way to the next one. */
  | { by: 'nearest'; tolerance: number };

/** A reading beyond the first or last breakpoint still belongs to it within this share of the last step. */
const beyondShare = 0.25;

/** The cells that a point belongs to, and its share of each; four at most. */
export interface CellShares {
  cells: Int32Array;
  shares: Float64Array;
  count: number;
}
export const noShares = (): CellShares => ({ cells: new Int32Array(4), shares: new Float64Array(4), count: 0 });

interface Place {
  low: number;
  /** Of the next breakpoint. */
  share: number;
}

function placeOn(breakpoints: Float64Array, value: number): Place | undefined {
  const last = breakpoints.length - 1;
  const first = sampleAt(breakpoints, 0);
  const top = sampleAt(breakpoints, last);
  if (!(value >= first - beyondShare * (sampleAt(breakpoints, 1) - first))) return undefined;
  if (!(value <= top + beyondShare * (top - sampleAt(breakpoints, last - 1)))) return undefined;
  const low = Math.max(0, Math.min(last - 1, firstNotBelow(breakpoints, value) - 1));
  const share = (value - sampleAt(breakpoints, low)) / (sampleAt(breakpoints, low + 1) - sampleAt(breakpoints, low));
  return { low, share: Math.max(0, Math.min(1, share)) };
}

/** Deals points to the cells of a table; a cell's number is its row times the columns plus its column. */
export function dealerOf(
  { across, down }: FuellingAxes,
  dealing: Dealing,
): (x: number, y: number, into: CellShares) => void {
  const columns = Float64Array.from(across.breakpoints);
  const rows = down ? Float64Array.from(down.breakpoints) : undefined;
  const nearest = (place: Place): Place | undefined => {
    if (dealing.by === 'corners') return place;
    const share = Math.round(place.share);
    return Math.abs(place.share - share) <= dealing.tolerance ? { low: place.low, share } : undefined;
  };
  const onAxis = (breakpoints: Float64Array, value: number) => {
    const place = placeOn(breakpoints, value);
    return place && nearest(place);
  };
  return (x, y, into) => {
    into.count = 0;
    const column = onAxis(columns, x);
    const row = rows ? onAxis(rows, y) : { low: 0, share: 0 };
    if (!column || !row) return;
    for (let down = 0; down < 2; down++) {
      const share = down === 1 ? row.share : 1 - row.share;
      if (share === 0) continue;
      for (let right = 0; right < 2; right++) {
        const whole = share * (right === 1 ? column.share : 1 - column.share);
        if (whole === 0) continue;
        into.cells[into.count] = (row.low + down) * columns.length + column.low + right;
        into.shares[into.count++] = whole;
      }
    }
  };
}
