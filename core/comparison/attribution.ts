import { bandMean } from '../curve/band-mean.ts';
import type { KnownDeviation, MeanDifference } from '../statistics/mean-difference.ts';
import { lineOf } from '../setup/difference.ts';
import type { SetupItem } from '../setup/item.ts';
import { bandDifference } from './comparison.ts';
import { commonSpeeds, type RunCurve } from './run-curve.ts';
import { verdictsOn, type Verdict } from './verdict.ts';
import { meanOf } from '../numerics/mean.ts';

/** What is needed of a setup to say what its step gave. */
export interface AttributedSetup {
  id: number;
  letter: string;
  parentId: number | null;
  change: string;
  items: readonly SetupItem[];
  /** Counted runs' power. */
  runs: readonly RunCurve[];
}

/** One step of the ladder. */
export interface AttributedStep {
  letter: string;
  /** What was changed since the step before, its items together. */
  change: string;
  items: number;
  /** True where several things changed at once: what each gave cannot be told apart. */
  inseparable: boolean;
  runs: number;
  /** Mean over the common range, kW. */
  meanKw: number;
  /** On the step before; absent for the first. */
  gain?: MeanDifference;
  verdict?: Verdict;
}

export interface Attribution {
  fromRpm: number;
  toRpm: number;
  steps: AttributedStep[];
  /** Last against first; the steps' gains add up to it. */
  whole: MeanDifference;
}

/**
 * The line of run setups that leads to one, each step's gain over a range that
 * all of them cover, so that the gains add up to the whole. Setups on the way
 * that were not run are joined with the next. Verdicts by Holm over the steps.
 *
 * @param range rpm; what all cover where left out or not covered
 * @returns undefined with fewer than two run setups on the line, or no range shared
 */
export function attributionOf(
  setups: readonly AttributedSetup[],
  toId: number,
  range?: readonly [number, number],
  borrowed?: KnownDeviation,
): Attribution | undefined {
  const line = lineOf(setups, toId);
  const ran = line.filter(({ runs }) => runs.length > 0);
  const all = ran.flatMap(({ runs }) => runs);
  const speeds = commonSpeeds(all);
  if (ran.length < 2 || !speeds) return undefined;
  const covered = [speeds[0]!, speeds[speeds.length - 1]!] as const;
  const [fromRpm, toRpm] = range && range[0] >= covered[0] && range[1] <= covered[1] ? range : covered;
  const level = meanOf(ran[0]!.runs.map((run) => bandMean(run.engineSpeedRpm, run.values, fromRpm, toRpm)));
  const elsewhere = borrowed
    ? { borrowed: { standardDeviation: borrowed.standardDeviation * level, df: borrowed.df } }
    : {};
  const between = (test: AttributedSetup, baseline: AttributedSetup) => {
    const alike = setups
      .filter((setup) => setup !== test && setup !== baseline && setup.runs.length > 1)
      .map(({ runs }) => runs);
    return bandDifference([test.runs, baseline.runs, ...alike], fromRpm, toRpm, elsewhere);
  };
  const steps = ran.map((setup, index): AttributedStep => {
    const before = ran[index - 1];
    const since = before ? line.slice(line.indexOf(before) + 1, line.indexOf(setup) + 1) : [setup];
    const items = since.reduce((sum, setup) => sum + setup.items.length, 0);
    const gain = before && between(setup, before);
    const means = setup.runs.map((run) => bandMean(run.engineSpeedRpm, run.values, fromRpm, toRpm));
    return {
      letter: setup.letter,
      change: since.map(({ change }) => change).join(', then '),
      items,
      inseparable: before !== undefined && items > 1,
      runs: setup.runs.length,
      meanKw: meanOf(means),
      ...(gain ? { gain } : {}),
    };
  });
  const whole = between(ran[ran.length - 1]!, ran[0]!);
  if (!whole) return undefined;
  const verdicts = verdictsOn(steps.slice(1).map(({ gain }) => gain));
  return {
    fromRpm,
    toRpm,
    steps: steps.map((step, index) => (index === 0 ? step : { ...step, verdict: verdicts[index - 1]! })),
    whole,
  };
}
