import { studentT, twoSidedProbability } from '../statistics/student-t.ts';
import type { SpreadPrior } from '../statistics/spread-prior.ts';
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
  /** Scatter of the orders within the setups: how much they tell of a drift. */
  orderScatter: number;
}

/** A drift that may be there: how large, in units of one run's spread, and what it must leave of a claim. */
export interface PossibleDrift {
  perRun: number;
  /** What is left must be clear of zero by so many standard errors. */
  leftErrors: number;
}

/** How large a drift from run to run has to be reckoned with. */
export interface UsualDrift {
  /** One that is always to be expected, in units of one run's spread: it widens every interval. */
  perRun: number;
  /** Heat takes power from run to run more often than warming up gives it, so a sag is reckoned with more strictly. */
  sagging: PossibleDrift;
  rising: PossibleDrift;
}

// Chosen by bench/experiments.ts: drift of up to half the spread a run, A A A B B B, against gains found without drift.
export const usualDrift: Record<'learned' | 'other', UsualDrift> = {
  // Repeats that were learned from hold the shop's usual drift already.
  learned: { perRun: 0.05, sagging: { perRun: 1, leftErrors: 2.25 }, rising: { perRun: 0.15, leftErrors: 1.5 } },
  other: { perRun: 0.05, sagging: { perRun: 1, leftErrors: 2.25 }, rising: { perRun: 0.5, leftErrors: 1.5 } },
};

/** The usual drift beside what is known of the spread. */
export function usualDriftOf({ from }: Pick<SpreadPrior, 'from'>): UsualDrift {
  return usualDrift[from === 'learned' ? 'learned' : 'other'];
}

/** How far the two sides' runs lie apart in order; half of all where the order is not known. */
export function apartInOrder(
  test: readonly { atMs?: number | undefined }[],
  baseline: readonly { atMs?: number | undefined }[],
): number {
  const times = (runs: typeof test) => runs.flatMap(({ atMs }) => atMs ?? []);
  const order = [...times(test), ...times(baseline)].sort((a, b) => a - b);
  if (order.length < test.length + baseline.length) return (test.length + baseline.length) / 2;
  const place = (runs: typeof test) => meanOf(times(runs).map((atMs) => order.indexOf(atMs)));
  return place(test) - place(baseline);
}

// Set by bench/experiments.ts: coverage of the intervals, and claims where nothing changed.
/** Taking the drift out may widen the interval's square by this factor before the design counts as unable to. */
const toleratedWidening = 1.6;

/** Runs in the same state as a side that are not part of its mean: those of a setup that went back to it. */
export interface Returns {
  test: readonly OrderedValue[];
  baseline: readonly OrderedValue[];
}

/**
 * Regression of a figure on run order within setups, all sharing one drift
 * (analysis of covariance): difference − drift·(mean orders apart).
 * With A A A B B B the change and a steady drift lie on top of each other and
 * only the little drift inside each setup tells them apart, so the adjusted
 * interval is about twice as wide; with a return to A it is hardly wider,
 * whether the return is counted with A or has a letter of its own.
 * Source: Montgomery, Design and Analysis of Experiments, 8th ed., §15.3.
 *
 * @param alike other setups' runs of the same session
 * @param returns tell of the drift, and are in neither mean
 * @returns undefined with fewer than two runs on each side, or no freedom left
 */
export function driftOf(
  test: readonly OrderedValue[],
  baseline: readonly OrderedValue[],
  alike: readonly (readonly OrderedValue[])[] = [],
  returns: Returns = { test: [], baseline: [] },
): Drift | undefined {
  const states = [
    [...test, ...returns.test],
    [...baseline, ...returns.baseline],
  ];
  const groups = [...states, ...alike].filter((group) => group.length > 0);
  if (test.length === 0 || baseline.length === 0) return undefined;
  let sxx = 0;
  let sxy = 0;
  let syy = 0;
  let df = -1;
  for (const group of groups) {
    const order = meanOrder(group);
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
  const apart = meanOrder(test) - meanOrder(baseline);
  const plain = meanOf(test.map((run) => run.value)) - meanOf(baseline.map((run) => run.value));
  const perMean = 1 / test.length + 1 / baseline.length;
  // Where a mean lacks some runs of its state, the slope tells something of that mean: the two are correlated.
  const shared = (meanOrder(test) - meanOrder(states[0]!) - (meanOrder(baseline) - meanOrder(states[1]!))) / sxx;
  const widening = 1 + (apart ** 2 / sxx - 2 * apart * shared) / perMean;
  const t = studentT(0.95, df);
  const error = Math.sqrt(variance / sxx);
  return {
    perRun,
    halfWidth: t * error,
    // Points that lie exactly on the line leave no uncertainty.
    pValue: error > 0 ? twoSidedProbability(perRun / error, df) : Number(perRun === 0),
    adjusted: plain - perRun * apart,
    adjustedHalfWidth: t * Math.sqrt(variance * perMean * widening),
    apart,
    separable: widening <= toleratedWidening,
    orderScatter: sxx,
  };
}

function meanOrder(runs: readonly OrderedValue[]): number {
  return meanOf(runs.map((run) => run.order));
}

/** An evident drift is less probable than this by chance. */
const evidentBelow = 0.05;
/** What an evident drift that cannot be told from the change must leave of it. */
const leftByDrift = 0.4;

/**
 * Whether a difference stands when the drift is taken out. An evident drift is
 * taken out whole. Any other as far as the few runs tell of it: a drift of the
 * possible size as it is expected given the slope that is seen (best linear
 * prediction), and what is left must be clear of zero.
 *
 * @param runDeviation standard deviation of one run
 * @param perMean 1/n₁ + 1/n₂
 */
export function survivesDrift(
  drift: Drift,
  plain: number,
  runDeviation: number,
  perMean: number,
  { sagging, rising }: UsualDrift,
): boolean {
  const sign = Math.sign(plain);
  if (drift.pValue < evidentBelow) {
    if (drift.separable) return drift.adjusted * sign > drift.adjustedHalfWidth;
    if (drift.adjusted * sign <= leftByDrift * Math.abs(plain)) return false;
  }
  // The drift that would have made this difference alone.
  const { perRun, leftErrors } = plain * drift.apart < 0 ? sagging : rising;
  const possible = perRun ** 2;
  const seen = possible / (possible + 1 / drift.orderScatter);
  const left = plain - seen * drift.perRun * drift.apart;
  const variance = perMean + possible * drift.apart ** 2 * (1 - seen);
  return left * sign > leftErrors * runDeviation * Math.sqrt(variance);
}
