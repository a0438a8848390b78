import type { Repeats } from '../statistics/spread-prior.ts';
import { usualDrift, type UsualDrift } from './drift.ts';

/** Fewer setups tell nothing of how a shop's cars drift. */
const leastSetups = 8;
/** How far above chance the slopes must lie, in standard deviations of their sum of squares. */
const plainly = 2.33;

/**
 * The drift that has to be reckoned with on a dyno, from how the repeats of
 * earlier jobs changed from run to run. Only a drift that the slopes plainly
 * show makes more of it than the usual one: three runs one after the other
 * tell little, a return or a baseline run first and last tells much.
 *
 * Slopes bᵢ over places with scatter Sᵢ, in units of the spread s about them: without a
 * drift Σ bᵢ²·Sᵢ/s² is near χ² with one degree of freedom each, and with one
 * of variance τ² it is larger by τ²·ΣSᵢ (moments).
 */
export function learnedDrift(history: readonly Repeats[]): UsualDrift {
  const known = history.flatMap(({ runs, share, slope }) =>
    slope && share > 0 && runs > 2 ? [{ runs, share, ...slope }] : [],
  );
  if (known.length < leastSetups) return usualDrift.learned;
  // Scatter beside each setup's own slope: the plain spread contains the drift as well.
  const df = known.reduce((sum, { runs }) => sum + runs - 2, 0);
  const left = known.reduce(
    (sum, { runs, share, perRun, placeScatter }) => sum + (runs - 1) * share ** 2 - perRun ** 2 * placeScatter,
    0,
  );
  const square = Math.max(0, left) / df;
  if (!(square > 0)) return usualDrift.learned;
  const scatter = known.reduce((sum, { placeScatter }) => sum + placeScatter, 0);
  const seen = known.reduce((sum, { perRun, placeScatter }) => sum + perRun ** 2 * placeScatter, 0) / square;
  const beyond = seen - known.length;
  if (beyond < plainly * Math.sqrt(2 * known.length)) return usualDrift.learned;
  const perRun = Math.sqrt(beyond / scatter);
  const { sagging, rising } = usualDrift.learned;
  return {
    perRun: usualDrift.learned.perRun,
    sagging: { ...sagging, perRun: Math.max(sagging.perRun, perRun) },
    rising: { ...rising, perRun: Math.max(rising.perRun, perRun) },
  };
}
