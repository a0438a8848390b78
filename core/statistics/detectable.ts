import { studentT } from './student-t.ts';
import { withLoneSides, type SpreadKnown } from './lone-side.ts';
import { movedT } from './moved-t.ts';

/** Chance of finding a change of the smallest detectable size. */
const power = 0.8;

/** By how many standard errors a change must lie beyond what counts as one, to be found four times in five. */
export function foundBeyond(df: number): number {
  // The one-sided 80 % point is the two-sided 60 % one.
  return studentT(2 * power - 1, df);
}

/**
 * The smallest true change that is found four times in five:
 * (t₀.₉₇₅ + t₀.₈₀)·s·√(1/n₁ + 1/n₂), about 3.0 s for three runs against three, more where drift is allowed for.
 * @param spread how well the standard deviation is known
 * @param level of the interval that must be clear of zero
 * @param most what drift may add, in units of the spread
 */
export function smallestDetectableChange(
  standardDeviation: number,
  spread: SpreadKnown,
  runs: number,
  otherRuns: number,
  { level = 0.95, most = 0 }: { level?: number; most?: number } = {},
): number {
  if (!(spread.df > 0)) return NaN;
  const df = withLoneSides(spread, [runs, otherRuns]);
  const perRun = Math.sqrt(1 / runs + 1 / otherRuns);
  return (movedT(level, df, most / perRun) + foundBeyond(df)) * standardDeviation * perRun;
}
