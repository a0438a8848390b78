import type { BayRow } from '../../../core/day/bay-rows.ts';
import { minuteMs } from '../../../core/day/day-facts.ts';

const hourMs = 60 * minuteMs;
/** Bookings move and stretch in steps of this, min. */
export const stepMin = 15;

/** Where a row's parts stand, px. */
export const laneHeight = 48;
const rowTop = 10;
/** What was worked, with its words under it. */
const workedHeight = 44;

/** The hours that are shown, ms: those of the shop, wider where something lies outside of them. */
export function hoursShown(
  rows: readonly BayRow[],
  dayStartMs: number,
  nowMs: number,
): { fromMs: number; toMs: number } {
  const dayEndMs = dayStartMs + 24 * hourMs;
  const inDay = (ms: number) => Math.min(dayEndMs, Math.max(dayStartMs, ms));
  const all = rows.flatMap(({ booked, worked }) => [
    ...booked.flatMap(({ fromMs, toMs, expectedToMs, state }) => [
      fromMs,
      toMs,
      ...(state === 'done' ? [] : [expectedToMs]),
    ]),
    ...worked.flatMap(({ fromMs, toMs }) => [fromMs, toMs]),
  ]);
  const today = nowMs >= dayStartMs && nowMs < dayEndMs ? [nowMs] : [];
  const moments = [...all, ...today].map(inDay);
  const least = Math.min(dayStartMs + 8 * hourMs, ...moments);
  const most = Math.max(dayStartMs + 18 * hourMs, ...moments);
  return {
    fromMs: dayStartMs + Math.floor((least - dayStartMs) / hourMs) * hourMs,
    toMs: dayStartMs + Math.ceil((most - dayStartMs) / hourMs) * hourMs,
  };
}

export interface PlacedRow {
  row: BayRow;
  topPx: number;
  heightPx: number;
  /** Where what was worked stands. */
  workedPx: number;
  /** Of each booking, by its number: what would lie on another one stands beneath it. */
  lanes: ReadonlyMap<number, number>;
}

/** The rows from top to bottom, with room for bookings that overlap. */
export function placedRows(rows: readonly BayRow[]): PlacedRow[] {
  let topPx = 0;
  return rows.map((row) => {
    const lanes = lanesOf(row);
    const count = Math.max(1, ...Array.from(lanes.values(), (lane) => lane + 1));
    const workedPx = topPx + rowTop + count * laneHeight + 4;
    // The floor has no dyno: nothing tells when work was done there.
    const heightPx = rowTop + count * laneHeight + (row.bay === null ? 8 : workedHeight);
    const placed = { row, topPx: topPx + rowTop, heightPx, workedPx, lanes };
    topPx += heightPx;
    return placed;
  });
}

function lanesOf({ booked }: BayRow): Map<number, number> {
  const ends: number[] = [];
  const lanes = new Map<number, number>();
  for (const { id, fromMs, toMs } of [...booked].sort((one, other) => one.fromMs - other.fromMs)) {
    const free = ends.findIndex((end) => end <= fromMs);
    const lane = free < 0 ? ends.length : free;
    ends[lane] = toMs;
    lanes.set(id, lane);
  }
  return lanes;
}

/** The row that a place lies in, from the top, px. */
export function rowAt(placed: readonly PlacedRow[], px: number): PlacedRow | undefined {
  return placed.find(({ topPx, heightPx }) => px < topPx - rowTop + heightPx) ?? placed.at(-1);
}

/** A stretch of time moved by a way on the screen, in whole steps. */
export function movedMin(deltaPx: number, widthPx: number, spanMs: number): number {
  const minutes = (deltaPx / widthPx) * (spanMs / minuteMs);
  return Math.round(minutes / stepMin) * stepMin;
}
