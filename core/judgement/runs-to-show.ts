import { levelOf, type JudgingRule } from '../comparison/judging-rule.ts';
import { meanOf, scatterOf } from '../numerics/mean.ts';
import { leftUnsteady } from '../comparison/drift.ts';
import { smallestDetectableChange } from '../statistics/detectable.ts';
import { narrowerBy } from '../statistics/mean-difference.ts';
import type { PairJudgement } from './pair-judgement.ts';

/** Runs of either side of a pair, and where in the job's order they lie. */
export interface PairRuns {
  test: number;
  baseline: number;
  /** Left out where the order is not known: then nothing is reckoned with that depends on it. */
  order?: RunOrder | undefined;
}

export interface RunOrder {
  test: readonly number[];
  baseline: readonly number[];
  /** The place of the run that comes next. */
  next: number;
  /** The most that a run may differ from the one before it, in units of one run's spread. */
  driftPerRun: number;
}

/** More runs than this are never proposed for one question. */
const mostRuns = 20;

/**
 * How many more runs of either side would show a change, each of the side that
 * buys more: where the order is known a run of the setup that lies farther back
 * is often worth several of the newest. Every further look has its price where
 * no plan was stated.
 * @returns undefined when no reasonable number would
 */
export function runsToShow(
  wantedKw: number,
  pair: PairJudgement,
  runs: PairRuns,
): { test: number; baseline: number } | undefined {
  const more = { test: 0, baseline: 0 };
  for (let added = 0; added <= mostRuns; added++) {
    if (detectableWith(pair, runs, more) <= wantedKw) return more;
    const withOne = (side: 'test' | 'baseline') => detectableWith(pair, runs, { ...more, [side]: more[side] + 1 });
    const fewer = runs.test + more.test <= runs.baseline + more.baseline ? 'test' : 'baseline';
    const other = fewer === 'test' ? 'baseline' : 'test';
    more[runs.order && withOne(other) < withOne(fewer) ? other : fewer]++;
  }
  return undefined;
}

/** The change that would be found four times in five with so many more runs, made from now on. */
function detectableWith(
  { difference: { standardDeviation, spread }, judging, drift }: PairJudgement,
  runs: PairRuns,
  more: { test: number; baseline: number },
): number {
  const added = more.test + more.baseline;
  const then: JudgingRule =
    judging.kind === 'every-look' ? { kind: 'every-look', look: judging.look + added } : judging;
  const [n, m] = [runs.test + more.test, runs.baseline + more.baseline];
  const level = levelOf(then);
  const told = { df: spread.df + added, told: spread.told + added };
  const { order } = runs;
  if (!order) return smallestDetectableChange(standardDeviation, told, n, m, { level });
  // The baseline's further runs come first: the sooner it is returned to, the better.
  const places = (from: number, count: number) => Array.from({ length: count }, (_, index) => from + index);
  const ofBaseline = [...order.baseline, ...places(order.next, more.baseline)];
  const ofTest = [...order.test, ...places(order.next + more.baseline, more.test)];
  const apart = Math.abs(meanOf(ofTest) - meanOf(ofBaseline));
  const most = order.driftPerRun * apart;
  const plain = smallestDetectableChange(standardDeviation, told, n, m, { level, most });
  // What the runs will tell of a steady drift, by how their places scatter within the setups.
  const scatter =
    (drift?.orderScatter ?? scatterOf(order.test) + scatterOf(order.baseline)) +
    scatterOf(ofTest) -
    scatterOf(order.test) +
    scatterOf(ofBaseline) -
    scatterOf(order.baseline);
  if (!(scatter > 0)) return plain;
  const widening = 1 + apart ** 2 / scatter / (1 / n + 1 / m);
  const without = smallestDetectableChange(standardDeviation * Math.sqrt(widening), told, n, m, {
    level,
    most: (leftUnsteady * most) / Math.sqrt(widening),
  });
  return without < narrowerBy * plain ? without : plain;
}
