import { medianOf } from '../numerics/quantile.ts';

/** A longer pause between two runs is no cool-down: the session was left. */
const longestPauseS = 45 * 60;

/**
 * How long a job takes from one run to the next, cool-down included: the
 * median of its own pauses.
 *
 * @param startsMs when its runs began, in any order
 * @returns s; undefined with fewer than two pauses
 */
export function paceOf(startsMs: readonly number[]): number | undefined {
  const rising = [...startsMs].sort((a, b) => a - b);
  const pauses = rising
    .slice(1)
    .map((at, index) => (at - rising[index]!) / 1000)
    .filter((pause) => pause <= longestPauseS);
  return pauses.length < 2 ? undefined : medianOf(Float64Array.from(pauses));
}
