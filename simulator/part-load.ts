import type { ConfigureMessage } from '../contract/instruments/bench-link.ts';
import type { Car } from './car.ts';

type Items = ConfigureMessage['items'];

/** A closed pedal leaves this share of the cell's pressure in the manifold; the rest follows the pedal. */
const closedShare = 0.25;
/** From this share of the cell's pressure on the table was set up at full load, and is right. */
const rightFrom = 0.86;

/** Absolute, kPa. @param throttle 0 to 1 */
export function manifoldKpa(throttle: number, ambientKpa: number, boostKpa: number): number {
  return ambientKpa * (closedShare + (1 - closedShare) * throttle) + boostKpa;
}

/** By what share a car's fuel table is lean at part load as it came: nobody ever drove it cell by cell. */
export function tableError(
  { fuel, sweepFromRpm, sweepToRpm }: Car,
  rpm: number,
  kpa: number,
  ambientKpa: number,
): number {
  if (fuel !== 'petrol') return 0;
  const speed = (rpm - sweepFromRpm) / (sweepToRpm - sweepFromRpm);
  const load = kpa / ambientKpa;
  const error =
    0.075 * bell((speed - 0.14) / 0.12) * bell((load - 0.6) / 0.16) -
    0.055 * bell((speed - 0.4) / 0.16) * bell((load - 0.45) / 0.14) +
    0.025 * (speed - 0.3) +
    0.012;
  return error * Math.max(0, Math.min(1, (rightFrom - load) / 0.08));
}

/** What a setup's fuel tables multiply the fuel by at a place; 1 without any. Beyond a table's edge its edge counts. */
export function fuelShare(items: Items, rpm: number, kpa: number): number {
  let share = 1;
  for (const item of items) {
    if (item.kind !== 'fuel-table' || !item.table) continue;
    const { across, down, multipliers } = item.table;
    const x = placeOn(across.breakpoints, across.channel === 'engineSpeed' ? rpm : kpa);
    const y = down ? placeOn(down.breakpoints, kpa) : { low: 0, share: 0 };
    const columns = across.breakpoints.length;
    const at = (row: number, column: number) => multipliers[row * columns + column] ?? 1;
    const line = (row: number) => at(row, x.low) + x.share * (at(row, x.low + 1) - at(row, x.low));
    share *= y.share === 0 ? line(y.low) : line(y.low) + y.share * (line(y.low + 1) - line(y.low));
  }
  return share;
}

function placeOn(breakpoints: readonly number[], value: number): { low: number; share: number } {
  const last = breakpoints.length - 1;
  let low = 0;
  while (low < last - 1 && breakpoints[low + 1]! <= value) low++;
  const share = (value - breakpoints[low]!) / (breakpoints[low + 1]! - breakpoints[low]!);
  return { low, share: Math.max(0, Math.min(1, share)) };
}

const bell = (u: number): number => Math.exp(-u * u);
