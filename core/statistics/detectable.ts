import { studentT } from './student-t.ts';

/** Chance of finding a change of the smallest detectable size. */
const power = 0.8;

/** The least difference of means that counts as one: t·s·√(1/n₁ + 1/n₂), in the unit of the spread. */
export function leastSignificantDifference(
  standardDeviation: number,
  df: number,
  runs: number,
  otherRuns: number,
): number {
  return df > 0 ? studentT(0.95, df) * standardDeviation * Math.sqrt(1 / runs + 1 / otherRuns) : NaN;
}

/**
 * The smallest true change that is found four times in five:
 * (t₀.₉₇₅ + t₀.₈₀)·s·√(1/n₁ + 1/n₂), about 3.0 s for three runs against three.
 * @param level of the interval that must be clear of zero
 */
export function smallestDetectableChange(
  standardDeviation: number,
  df: number,
  runs: number,
  otherRuns: number,
  level = 0.95,
): number {
  if (!(df > 0)) return NaN;
  // The one-sided 80 % point is the two-sided 60 % one.
  const sum = studentT(level, df) + studentT(2 * power - 1, df);
  return sum * standardDeviation * Math.sqrt(1 / runs + 1 / otherRuns);
}
