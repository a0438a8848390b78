import fCdf from '@stdlib/stats-base-dists-f-cdf';
import type { Repeats } from '../statistics/spread-prior.ts';
import { studentT, twoSidedProbability } from '../statistics/student-t.ts';
import {
  asGoodAsInfinite,
  belonging,
  fittedVariances,
  together,
  varianceRatioPoint,
} from '../statistics/variance-prior.ts';
import { usualDrift, type UsualDrift } from './drift.ts';

/** Fewer setups tell nothing of how a shop's cars drift. */
const leastSetups = 8;
/** Each of the two tests has half of the 5 % that a shop without drift is told of one. */
const shownBelow = 0.025;
/** However calm a shop's days were, a little is always reckoned with, in units of one run's spread. */
const leastPerRun = 0.05;

/** How one setup's repeats changed from run to run. */
interface SeenSlope {
  /** In units of its spread. */
  perRun: number;
  /** Were there no drift: of a standard normal variable. */
  normalSquare: number;
  placeScatter: number;
  /** Of its spread. */
  df: number;
}

/**
 * The drift that has to be reckoned with on a dyno, from how the repeats of
 * earlier jobs changed from run to run. A shop's history shows one where its
 * slopes scatter more than chance makes them (F), or where they go one way on
 * the whole (t of their mean): then the upper end of its 95 % interval takes the
 * place of the usual one. A history in which nothing drifts takes the place of
 * the usual one, too, where its upper end is smaller.
 *
 * Slopes bᵢ over places with scatter Sᵢ, scaled by each setup's own moderated
 * spread, are normal with variance 1 + τ²·Sᵢ (after the probability of t).
 */
export function learnedDrift(history: readonly Repeats[]): UsualDrift {
  const slopes = slopesOf(history);
  if (slopes.length < leastSetups) return usualDrift;
  const spread = scatterOfSlopes(slopes);
  const mean = meanSlope(slopes);
  const shown = [spread, mean].filter(({ pValue }) => pValue < shownBelow).map(({ upper }) => upper);
  const perRun = shown.length > 0 ? Math.max(...shown) : Math.min(usualDrift.perRun, spread.upper);
  const { sagging } = usualDrift;
  return {
    perRun: Math.max(leastPerRun, perRun),
    sagging: { ...sagging, perRun: Math.max(sagging.perRun, perRun) },
  };
}

function slopesOf(history: readonly Repeats[]): SeenSlope[] {
  // Scatter beside each setup's own slope: the plain spread contains the drift as well.
  const known = history.flatMap(({ runs, share, slope }) => {
    if (!slope || runs < 3) return [];
    const variance = ((runs - 1) * share ** 2 - slope.perRun ** 2 * slope.placeScatter) / (runs - 2);
    return variance > 0 ? [{ variance, df: runs - 2, slope }] : [];
  });
  if (known.length === 0) return [];
  const kept = belonging(known);
  const prior = fittedVariances(kept);
  return kept.map(({ variance, df, slope: { perRun, placeScatter } }) => {
    const spread = Math.sqrt(together(Number.isFinite(prior.df) ? [prior, { variance, df }] : kept).variance);
    const t = (perRun * Math.sqrt(placeScatter)) / spread;
    const beyond = Math.max(1e-12, twoSidedProbability(t, Math.min(prior.df + df, asGoodAsInfinite)));
    return {
      perRun: perRun / spread,
      normalSquare: studentT(1 - beyond, asGoodAsInfinite) ** 2,
      placeScatter,
      df,
    };
  });
}

/** Whether the slopes scatter by more than chance, and by how much at most. */
function scatterOfSlopes(slopes: readonly SeenSlope[]) {
  const count = slopes.length;
  const df = slopes.reduce((sum, one) => sum + one.df, 0);
  const ratio = slopes.reduce((sum, { normalSquare }) => sum + normalSquare, 0) / count;
  const places = slopes.reduce((sum, { placeScatter }) => sum + placeScatter, 0) / count;
  const most = ratio / varianceRatioPoint(shownBelow, count, df) - 1;
  return { pValue: 1 - fCdf(ratio, count, df), upper: Math.sqrt(Math.max(0, most) / places) };
}

/** Whether the slopes go one way on the whole, and how far at most. */
function meanSlope(slopes: readonly SeenSlope[]) {
  const weights = slopes.reduce((sum, { placeScatter }) => sum + placeScatter, 0);
  const mean = slopes.reduce((sum, { perRun, placeScatter }) => sum + placeScatter * perRun, 0) / weights;
  const df = slopes.length - 1;
  const scatter = slopes.reduce((sum, { perRun, placeScatter }) => sum + placeScatter * (perRun - mean) ** 2, 0);
  const error = Math.sqrt(scatter / df / weights);
  return { pValue: twoSidedProbability(mean / error, df), upper: Math.abs(mean) + studentT(0.95, df) * error };
}
