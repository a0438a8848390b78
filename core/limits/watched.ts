import { headroom, limitQuantities, onlyUnderLoad, readingTolerance, type Limit, type LimitQuantity } from './limit.ts';

/** A limit against what is read now. */
export interface WatchedLimit {
  quantity: LimitQuantity;
  label: string;
  unit: string;
  side: 'most' | 'least';
  value: number;
  reading: number | undefined;
  /** It was read in this pull, or a channel of it is there, and it is not read any more: nobody watches it. */
  unread: boolean;
  /** False at part load, where the limit says nothing. */
  applies: boolean;
  /** Distance left in the unit; negative once crossed; undefined where it cannot be told. */
  left: number | undefined;
  crossed: boolean;
  /** Within a twentieth of the limit, and not crossed. */
  near: boolean;
}

const nearShare = 0.05;

/**
 * The limits of a job against the readings of a moment.
 *
 * @param read a channel's or quantity's reading in its unit; undefined where there is none
 * @param loaded whether the engine is at full load: some limits are only watched then
 * @returns in the order that they were given: a row that moves while it is read is read wrong
 */
export function watchedLimits(
  limits: readonly Limit[],
  read: (quantity: LimitQuantity) => number | undefined,
  loaded: boolean,
): WatchedLimit[] {
  return limits.map((limit): WatchedLimit => {
    const { label, unit, side } = limitQuantities[limit.quantity];
    const reading = read(limit.quantity);
    const applies = loaded || !onlyUnderLoad(limit.quantity);
    const left = applies && reading !== undefined ? headroom(limit, reading) : undefined;
    const crossed = left !== undefined && left < -readingTolerance(limit);
    const near = left !== undefined && !crossed && left < nearShare * Math.abs(limit.value);
    const about = { quantity: limit.quantity, label, unit, side, value: limit.value };
    return { ...about, reading, unread: false, applies, left, crossed, near };
  });
}

/**
 * A limit as it is shown for the length of a pull: what it once was in it, it stays.
 * @param crossed it was crossed, for long enough to count
 * @param near it was near
 */
export const heldLimit = (now: WatchedLimit, crossed: boolean, near: boolean): WatchedLimit => ({
  ...now,
  crossed,
  near: !crossed && (near || now.near),
});
