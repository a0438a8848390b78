import { studentT, twoSidedProbability } from '../statistics/student-t.ts';
import type { DriftAllowance } from '../statistics/mean-difference.ts';
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
  /** Variance of `adjusted` ÷ that of the plain difference. */
  widening: number;
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

/** How large a drift from run to run has to be reckoned with, in units of one run's spread. */
export interface UsualDrift {
  /** The most that a run may differ from the one before it, either way: every interval holds with it. */
  perRun: number;
  /** Heat takes power from run to run more often than warming up gives it, so a loss is reckoned with more strictly. */
  sagging: PossibleDrift;
}

// Chosen by bench/experiments.ts: drifts of many shapes against gains found without drift.
export const usualDrift: UsualDrift = { perRun: 0.3, sagging: { perRun: 1, leftErrors: 2.25 } };
/** What a drift that is not steady leaves, as a share of the plain difference's, where a steady one is taken out. */
export const leftUnsteady = 0.25;

/** When a run was made: its place in its session, its time, or neither. */
interface Placed {
  atMs?: number | undefined;
  place?: number | undefined;
}

/** The place of each run in the order of them all; undefined where some are of unknown time. */
export function ordersOf(runs: readonly Placed[]): (run: Placed) => number | undefined {
  if (runs.every(({ place }) => place !== undefined)) return ({ place }) => place;
  const times = runs.flatMap(({ atMs }) => atMs ?? []).sort((a, b) => a - b);
  return ({ atMs }) => (atMs === undefined || times.length < runs.length ? undefined : times.indexOf(atMs));
}

/** How far the two sides' runs lie apart in order; half of all where the order is not known. */
export function apartInOrder(test: readonly Placed[], baseline: readonly Placed[]): number {
  const orderOf = ordersOf([...test, ...baseline]);
  const places = (runs: readonly Placed[]) => runs.flatMap((run) => orderOf(run) ?? []);
  const [ofTest, ofBaseline] = [places(test), places(baseline)];
  if (ofTest.length + ofBaseline.length < test.length + baseline.length) return (test.length + baseline.length) / 2;
  return meanOf(ofTest) - meanOf(ofBaseline);
}

/**
 * What a drift of at most so much a run may add to a difference of means, and to the one with a steady drift taken out.
 * @param apart how far the sides lie apart in order, runs
 * @param drift what the runs tell of it
 */
export function driftAllowance({ perRun }: UsualDrift, apart: number, drift: Drift | undefined): DriftAllowance {
  const most = perRun * Math.abs(apart);
  return {
    most,
    takenOut: drift && { difference: drift.adjusted, widening: drift.widening, most: leftUnsteady * most },
  };
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
    widening,
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
 * taken out whole. A sag that is not evident, as far as the few runs tell of
 * it: one of the possible size as it is expected given the slope that is seen
 * (best linear prediction), and what is left must be clear of zero.
 *
 * @param plain the difference as it was measured
 * @param runDeviation standard deviation of one run
 * @param perMean 1/n₁ + 1/n₂
 */
export function survivesDrift(
  drift: Drift,
  plain: number,
  runDeviation: number,
  perMean: number,
  { sagging }: UsualDrift,
): boolean {
  const sign = Math.sign(plain);
  if (drift.pValue < evidentBelow) {
    if (drift.separable) return drift.adjusted * sign > drift.adjustedHalfWidth;
    if (drift.adjusted * sign <= leftByDrift * Math.abs(plain)) return false;
  }
  // Only a loss can be what heat alone has made; the interval holds with the drift that there may be either way.
  if (plain * drift.apart >= 0) return true;
  const { perRun, leftErrors } = sagging;
  const possible = perRun ** 2;
  const seen = possible / (possible + 1 / drift.orderScatter);
  const left = plain - seen * drift.perRun * drift.apart;
  const variance = perMean + possible * drift.apart ** 2 * (1 - seen);
  return left * sign > leftErrors * runDeviation * Math.sqrt(variance);
}
