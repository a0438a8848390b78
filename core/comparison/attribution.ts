import { sampleAt } from '../numerics/sample-at.ts';
import { bandMean } from '../curve/band-mean.ts';
import type { MeanDifference } from '../statistics/mean-difference.ts';
import { lineOf } from '../setup/difference.ts';
import type { SetupItem } from '../setup/item.ts';
import { bandOrAll } from './coverage.ts';
import { commonSpeeds, type RunCurve } from './run-curve.ts';
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
  setupId: number;
  /** The run setup before it on the line; absent for the first. */
  beforeId?: number;
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
}

export interface Attribution {
  fromRpm: number;
  toRpm: number;
  steps: AttributedStep[];
  /** Last against first; the steps' gains add up to it. */
  whole: MeanDifference;
}

/** Difference of two setups' means over a range; undefined where a run does not cover it. */
export type DifferenceBetween = (
  testId: number,
  againstId: number,
  fromRpm: number,
  toRpm: number,
) => MeanDifference | undefined;

/**
 * The line of run setups that leads to one, each step's gain over a range that
 * all of them cover, so that the gains add up to the whole. Setups on the way
 * that were not run are joined with the next. What may be said of a step is
 * the judgement's of its pair (core/judgement).
 *
 * @param range rpm; what all cover where left out or not covered
 * @returns undefined with fewer than two run setups on the line, or no range shared
 */
export function attributionOf(
  setups: readonly AttributedSetup[],
  toId: number,
  between: DifferenceBetween,
  range?: readonly [number, number],
): Attribution | undefined {
  const line = lineOf(setups, toId);
  const ran = line.filter(({ runs }) => runs.length > 0);
  const [first, last] = [ran[0], ran[ran.length - 1]];
  const speeds = commonSpeeds(ran.flatMap(({ runs }) => runs));
  if (!first || !last || first === last || !speeds) return undefined;
  const covered = [sampleAt(speeds, 0), sampleAt(speeds, speeds.length - 1)] as const;
  const [fromRpm, toRpm] = bandOrAll(range, covered);
  const steps = ran.map((setup, index): AttributedStep => {
    const before = ran[index - 1];
    const since = before ? line.slice(line.indexOf(before) + 1, line.indexOf(setup) + 1) : [setup];
    const items = since.reduce((sum, { items: ofStep }) => sum + ofStep.length, 0);
    const gain = before && between(setup.id, before.id, fromRpm, toRpm);
    return {
      setupId: setup.id,
      ...(before ? { beforeId: before.id } : {}),
      letter: setup.letter,
      change: since.map(({ change }) => change).join(', then '),
      items,
      inseparable: before !== undefined && items > 1,
      runs: setup.runs.length,
      meanKw: meanOf(setup.runs.map((run) => bandMean(run.engineSpeedRpm, run.values, fromRpm, toRpm))),
      ...(gain ? { gain } : {}),
    };
  });
  const whole = between(last.id, first.id, fromRpm, toRpm);
  return whole && { fromRpm, toRpm, steps, whole };
}
