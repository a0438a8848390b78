import { headroom, limitQuantities, readingTolerance, type Limit, type LimitQuantity } from './limit.ts';

/** A limit that a run went beyond. */
export interface BrokenLimit {
  quantity: LimitQuantity;
  label: string;
  unit: string;
  side: 'most' | 'least';
  limit: number;
  reading: number;
  /** Engine speed at the farthest reading, rpm; undefined where the quantity has no place. */
  atRpm: number | undefined;
  /** A usual limit, not one that was set in this job. */
  usual: boolean;
}

/** Where a run came nearest to a limit, or farthest beyond it. */
export interface Reach {
  reading: number;
  atRpm?: number | undefined;
}

/** What is taken back beyond this is knock, whatever a job has written. */
const usualKnockDeg = 3;

/**
 * The limits that one run went beyond: the job's own, and knock by the usual
 * limit where the job has none. Decided here once for every screen.
 *
 * @param reach of a limit's quantity in this run; undefined where nothing was read
 * @param spark false for a diesel, which has no ignition to take back
 */
export function brokenLimits(
  limits: readonly Limit[],
  reach: (limit: Limit) => Reach | undefined,
  { spark, lossShare }: { spark: boolean; lossShare?: number | undefined },
): BrokenLimit[] {
  const knock: Limit = { quantity: 'knockRetard', value: usualKnockDeg, scale: null };
  const usual = spark && !limits.some(({ quantity }) => quantity === 'knockRetard') ? [knock] : [];
  return [...limits, ...usual].flatMap((limit): BrokenLimit[] => {
    const reached = reach(limit);
    if (!reached || Number.isNaN(reached.reading)) return [];
    const left = headroom(limit, reached.reading, lossShare);
    if (left === undefined || left >= -readingTolerance(limit)) return [];
    const { label, unit, side } = limitQuantities[limit.quantity];
    const { reading, atRpm } = reached;
    return [{ quantity: limit.quantity, label, unit, side, limit: limit.value, reading, atRpm, usual: limit === knock }]; // prettier-ignore
  });
}

/** Of several runs' broken limits the farthest of each quantity. */
export function worstOf(broken: readonly BrokenLimit[]): BrokenLimit[] {
  const worst = new Map<LimitQuantity, BrokenLimit>();
  for (const found of broken) {
    const before = worst.get(found.quantity);
    const farther = !before || (found.side === 'most' ? found.reading > before.reading : found.reading < before.reading); // prettier-ignore
    if (farther) worst.set(found.quantity, found);
  }
  return [...worst.values()];
}
