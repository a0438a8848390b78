import type { FuellingAxes } from './axes.ts';
import type { FittedCell } from './corner-fit.ts';
import { type ProbeDelay } from './gas-way.ts';
import { knowledgeOf, standingOf } from './standing.ts';

/** A cell to drive to, and for how long it is to be held. */
export interface CellVisit {
  cell: number;
  across: number;
  /** null where the table has one axis. */
  down: number | null;
  holdS: number;
}

/** Where the engine is on the table's axes. */
export interface TablePlace {
  across: number;
  down: number | null;
}

/** A hold aims at an interval this narrow, as a share. */
const aimedHalfWidth = 0.008;
const shortestS = 4;
const longestS = 12;
/** The way beyond ground that is known is longer by so many cells for each step of load. */
const climbCost = 4;

/** How long a cell must be held until its interval is as narrow as it need be; the probe's settling included, s. */
function holdOf(cell: FittedCell, { transportS, lagS }: ProbeDelay): number {
  const settlingS = transportS + 5 * lagS + 0.4;
  const needed = cell.spread > 0 ? ((2 * cell.spread) / aimedHalfWidth) ** 2 - cell.effectiveCount : 0;
  return Math.round(Math.max(shortestS, Math.min(longestS, settlingS + needed)));
}

/**
 * The cell to visit next: the nearest that is not known well enough to say where
 * it stands, before those whose load lies more than one step above what has been
 * driven: load is raised one step at a time.
 *
 * @param going the cell that was named before: it stays the next one until it is known
 * @param wanted cells that the work is about; all where it is absent
 * @returns undefined when every one of them is settled
 */
export function nextCell(
  axes: FuellingAxes,
  cells: readonly FittedCell[],
  delay: ProbeDelay,
  place?: TablePlace,
  going?: number,
  wanted: (cell: number) => boolean = () => true,
): CellVisit | undefined {
  const columns = axes.across.breakpoints.length;
  const rowOf = (cell: number) => Math.floor(cell / columns);
  const highest = cells.reduce(
    (most, cell, at) => (knowledgeOf(cell) === 'empty' ? most : Math.max(most, rowOf(at))),
    0,
  );
  const at = place && {
    column: nearestIndex(axes.across.breakpoints, place.across),
    row: axes.down && place.down !== null ? nearestIndex(axes.down.breakpoints, place.down) : 0,
  };
  let best: { cell: number; cost: number } | undefined;
  cells.forEach((fitted, cell) => {
    if (!wanted(cell) || !unsettled(fitted)) return;
    const way = at ? Math.abs((cell % columns) - at.column) + Math.abs(rowOf(cell) - at.row) : cell / 1000;
    const climb = climbCost * Math.max(0, rowOf(cell) - highest - 1);
    // Cells with a little data are finished first; known cells that still need a change wait until every cell has been
    // visited once.
    const known = knowledgeOf(fitted) === 'known';
    const cost = cell === going && !known ? -1 : way + climb + (known ? 100 : 0);
    if (!best || cost < best.cost) best = { cell, cost };
  });
  if (!best) return undefined;
  const { cell } = best;
  return {
    cell,
    across: axes.across.breakpoints[cell % columns]!,
    down: axes.down ? axes.down.breakpoints[rowOf(cell)]! : null,
    holdS: holdOf(cells[cell]!, delay),
  };
}

function unsettled(cell: FittedCell): boolean {
  const standing = standingOf(cell);
  return standing === 'not known' || standing === 'open';
}

export function nearestIndex(breakpoints: readonly number[], value: number): number {
  let best = 0;
  breakpoints.forEach((at, index) => {
    if (Math.abs(at - value) < Math.abs(breakpoints[best]! - value)) best = index;
  });
  return best;
}
