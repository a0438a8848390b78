import { stoichiometricOf } from '../fuel/blend.ts';
import { usualLimits, type EngineFacts } from './suggestions.ts';
import { headroom, limitQuantities, readingTolerance, type Limit, type LimitQuantity } from './limit.ts';

/** A limit that a run went beyond. */
export interface BrokenLimit {
  quantity: LimitQuantity;
  label: string;
  unit: string;
  side: 'most' | 'least';
  limit: number;
  reading: number;
  /** Air–fuel ratio that λ is told with, of what the run burnt. */
  stoichiometric: number;
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

/**
 * The limits that one run went beyond: the job's own, and the usual ones of
 * quantities that the job sets none for. Decided here once for every screen.
 *
 * @param reach of a limit's quantity in this run; undefined where nothing was read
 * @param engine whose usual limits these are, and what it burnt in this run
 * @param lossShare between crank and what is shown, where that is known
 */
export function brokenLimits(
  limits: readonly Limit[],
  reach: (limit: Limit) => Reach | undefined,
  engine: Pick<EngineFacts, 'ignition' | 'ethanolPct'>,
  lossShare?: number,
): BrokenLimit[] {
  const stoichiometric = stoichiometricOf(engine.ignition, engine.ethanolPct).ratio;
  return withUsual(limits, usualLimits(engine)).flatMap((limit): BrokenLimit[] => {
    const reached = reach(limit);
    if (!reached || Number.isNaN(reached.reading)) return [];
    const left = headroom(limit, reached.reading, lossShare);
    if (left === undefined || left >= -readingTolerance(limit)) return [];
    const { label, unit, side } = limitQuantities[limit.quantity];
    const { reading, atRpm } = reached;
    return [
      {
        quantity: limit.quantity,
        label,
        unit,
        side,
        limit: limit.value,
        reading,
        stoichiometric,
        atRpm,
        usual: !limits.includes(limit),
      },
    ];
  });
}

/** The job's own limits, and the usual ones of quantities that it sets none for. */
export function withUsual(limits: readonly Limit[], usual: readonly Limit[]): Limit[] {
  return [...limits, ...usual.filter(({ quantity }) => !limits.some((limit) => limit.quantity === quantity))];
}

/** Of several runs' broken limits the farthest of each quantity. */
export function worstOf(broken: readonly BrokenLimit[]): BrokenLimit[] {
  const worst = new Map<LimitQuantity, BrokenLimit>();
  for (const found of broken) {
    const before = worst.get(found.quantity);
    const farther =
      !before || (found.side === 'most' ? found.reading > before.reading : found.reading < before.reading);
    if (farther) worst.set(found.quantity, found);
  }
  return [...worst.values()];
}
