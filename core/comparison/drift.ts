import { studentT, twoSidedProbability } from '../statistics/student-t.ts';
import { meanOf } from '../numerics/mean.ts';

/** A figure of one run and its place in the order of the session (0, 1, 2 …). */
export interface OrderedValue {
  order: number;
  value: number;
}

/** Drift from run to run within setups, and what the difference is without it. */
export interface Drift {
  /** Change of the figure from one run to the next. */
  perRun: number;
  halfWidth: number;
  pValue: number;
  /** Difference of the setups with the drift taken out, and its wider interval. */
  adjusted: number;
  adjustedHalfWidth: number;
  /** How far apart in order the two sides lie, runs. */
  apart: number;
  /** True where the runs were bracketed or alternated well enough for drift and change to be told apart. */
  separable: boolean;
}

// Set by bench/experiments.ts: coverage of the intervals, and claims where nothing changed.
/** Taking the drift out may widen the interval's square by this factor before the design counts as unable to. */
const toleratedWidening = 1.6;

/**
 * Regression of a figure on run order within setups, all sharing one drift
 * (analysis of covariance): difference − drift·(mean orders apart).
 * With A A A B B B the change and a steady drift lie on top of each other and
 * only the little drift inside each setup tells them apart, so the adjusted
 * interval is about twice as wide; with a return to A it is hardly wider.
 * Source: Montgomery, Design and Analysis of Experiments, 8th ed., §15.3.
 *
 * @param alike other setups' runs of the same session
 * @returns undefined with fewer than two runs on each side, or no freedom left
 */
export function driftOf(
  test: readonly OrderedValue[],
  baseline: readonly OrderedValue[],
  alike: readonly (readonly OrderedValue[])[] = [],
): Drift | undefined {
  const groups = [test, baseline, ...alike].filter((group) => group.length > 0);
  if (test.length === 0 || baseline.length === 0) return undefined;
  let sxx = 0;
  let sxy = 0;
  let syy = 0;
  let df = -1;
  for (const group of groups) {
    const order = meanOf(group.map((run) => run.order));
    const value = meanOf(group.map((run) => run.value));
    for (const run of group) {
      sxx += (run.order - order) ** 2;
      sxy += (run.order - order) * (run.value - value);
      syy += (run.value - value) ** 2;
    }
    df += group.length - 1;
  }
  if (df < 1 || !(sxx > 0)) return undefined;
  const perRun = sxy / sxx;
  const variance = Math.max(0, syy - sxy * perRun) / df;
  const apart = meanOf(test.map((run) => run.order)) - meanOf(baseline.map((run) => run.order));
  const plain = meanOf(test.map((run) => run.value)) - meanOf(baseline.map((run) => run.value));
  const perMean = 1 / test.length + 1 / baseline.length;
  const widening = 1 + apart ** 2 / sxx / perMean;
  const t = studentT(0.95, df);
  const error = Math.sqrt(variance / sxx);
  return {
    perRun,
    halfWidth: t * error,
    pValue: error > 0 ? twoSidedProbability(perRun / error, df) : 1,
    adjusted: plain - perRun * apart,
    adjustedHalfWidth: t * Math.sqrt(variance * perMean * widening),
    apart,
    separable: widening <= toleratedWidening,
  };
}
