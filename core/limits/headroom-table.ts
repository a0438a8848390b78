import { headroom, limitQuantities, type Limit } from './limit.ts';

/** A limit against the latest run, and where the next step of the same size would land. */
export interface HeadroomRow {
  limit: Limit;
  label: string;
  unit: string;
  reading: number;
  /** Positive while the limit is kept. */
  left: number;
  /** The reading after one more step like the last; undefined where the run before is not known. */
  next?: number;
  nextLeft?: number;
}

export interface Headroom {
  rows: HeadroomRow[];
  /** Limits that nothing was read of, or that belong to another scale: labels. */
  unknown: string[];
}

/**
 * What is left to each limit, the nearest first in its own measure.
 *
 * @param reach of the latest run's channels: the greatest for limits at most, the least for limits at least
 * @param before the same of the setup that it was changed from
 * @param crankKnown readings for limits on the crank's scale are estimates for the crank
 */
export function headroomTable(
  limits: readonly Limit[],
  reach: (limit: Limit) => number | undefined,
  before: (limit: Limit) => number | undefined,
  crankKnown = false,
): Headroom {
  // An estimate for the crank needs no more taken off it.
  const lossShare = crankKnown ? 0 : undefined;
  const rows: HeadroomRow[] = [];
  const unknown: string[] = [];
  for (const limit of limits) {
    const { label, unit } = limitQuantities[limit.quantity];
    const reading = reach(limit);
    const left = reading === undefined || Number.isNaN(reading) ? undefined : headroom(limit, reading, lossShare);
    if (reading === undefined || left === undefined) {
      unknown.push(limit.scale === 'crank' ? `${label} (on the crank’s scale)` : label);
      continue;
    }
    const earlier = before(limit);
    const next = earlier === undefined || Number.isNaN(earlier) ? undefined : reading + (reading - earlier);
    const nextLeft = next === undefined ? undefined : headroom(limit, next, lossShare);
    rows.push({
      limit,
      label,
      unit,
      reading,
      left,
      ...(next === undefined || nextLeft === undefined ? {} : { next, nextLeft }),
    });
  }
  rows.sort((a, b) => a.left / Math.abs(a.limit.value) - b.left / Math.abs(b.limit.value));
  return { rows, unknown };
}
