import { learnedDrift } from '../../comparison/learned-drift.ts';
import { learnedSpread, type Repeats } from '../../statistics/spread-prior.ts';
import type { KnownDeviation } from '../../statistics/mean-difference.ts';
import type { Learned } from './figures-request.ts';

/** What a shop knows of its dyno: check runs, and the repeats of earlier jobs. */
export interface ShopHistory {
  /** Spread of check runs within a mounting, as a share of power. */
  within?: KnownDeviation | undefined;
  remount?: KnownDeviation | undefined;
  /** Repeats of setups in earlier jobs. */
  repeats?: readonly Repeats[] | undefined;
}

/** What figures take from a shop's history; undefined where it tells nothing. */
export function learnedFrom({ within, remount, repeats = [] }: ShopHistory): Learned | undefined {
  const checks = within ? [{ runs: Math.round(within.df) + 1, share: within.standardDeviation }] : [];
  const spread = learnedSpread([...repeats, ...checks]);
  if (!spread && !remount) return undefined;
  return { ...(spread ? { spread, drift: learnedDrift(repeats) } : {}), ...(remount ? { remount } : {}) };
}
