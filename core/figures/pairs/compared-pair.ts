import { sampleAt } from '../../numerics/sample-at.ts';
import { bandDifference, chosenRange } from '../../comparison/comparison.ts';
import { claimRule, firstVerdict } from '../../comparison/claims.ts';
import { usualDrift } from '../../comparison/drift.ts';
import { oneLook, levelOf, ruleFor, type JudgingRule } from '../../comparison/judging-rule.ts';
import { bandsCovered } from '../../comparison/coverage.ts';
import { commonSpeeds, type ComparedRuns, type RunCurve } from '../../comparison/run-curve.ts';
import type { Surroundings } from '../../comparison/surroundings.ts';
import { bandMean } from '../../curve/band-mean.ts';
import { judged, type PairJudgement } from '../../judgement/pair-judgement.ts';
import { unlikeRespects } from '../../likeness/like-for-like.ts';
import { loneBaseline } from '../../likeness/session-respects.ts';
import { byMounting, mountedAnew } from '../../likeness/mountings.ts';
import type { RecordedChange, Unlikeness } from '../../likeness/run-conditions.ts';
import { meanOf } from '../../numerics/mean.ts';
import type { KnownDeviation, MeanDifference } from '../../statistics/mean-difference.ts';
import { remountDeviation } from '../../statistics/remount.ts';
import { assumedSpread, type SpreadPrior } from '../../statistics/spread-prior.ts';
import { lineOf } from '../../setup/difference.ts';
import { measuredConditions, runCurve, type CountedRun, type Quantity } from '../runs/figured-run.ts';
import type { ResolvedRequest } from '../runs/resolved-request.ts';
import type { Drift } from '../../comparison/drift.ts';
import type { Travel } from '../../curve/travel.ts';

/** Two sets of runs of a job with all that a judgement on them rests on. */
export interface ComparedPair {
  testId: number;
  againstId: number;
  sides: readonly [test: readonly CountedRun[], against: readonly CountedRun[]];
  power: ComparedRuns;
  around: Surroundings;
  judging: JudgingRule;
}

/** Ids of the runs of either side that were picked; all counted ones where left out. */
export interface ChosenRuns {
  test?: readonly number[] | undefined;
  against?: readonly number[] | undefined;
}

/** What all pairs of a job are made from. */
export interface PairsOf {
  request: ResolvedRequest;
  setups: readonly SetupCurves[];
  /** The counted runs of a setup. */
  counted: (setupId: number) => CountedRun[];
  /** The spread of repeats before this job's own tell of it. */
  spread: SpreadPrior;
  /** Spread from mounting to mounting, where it is known. */
  remount: KnownDeviation | undefined;
}

/** What the pairs of a job share. */
export function pairsOf(
  request: ResolvedRequest,
  setups: readonly SetupCurves[],
  counted: (setupId: number) => CountedRun[],
): PairsOf {
  const [any] = setups.flatMap(({ setupId }) => counted(setupId));
  const spread = request.learned?.spread ?? assumedSpread(any?.run.conditions.dyno.kind ?? 'inertia-roller');
  return { request, setups, counted, spread, remount: remountOf(setups) ?? request.learned?.remount };
}

/** One pair of a job. @param only ids of the runs of either side; all counted ones where left out */
export function comparedPair(
  { request, setups, counted, spread, remount }: PairsOf,
  testId: number,
  againstId: number,
  only: ChosenRuns = {},
): ComparedPair {
  const chosen = (id: number, ids: readonly number[] | undefined) =>
    counted(id).filter(({ run }) => !ids || ids.includes(run.id));
  const sides = [chosen(testId, only.test), chosen(againstId, only.against)] as const;
  const power = comparedRuns(sides, setups, testId, againstId, 'powerKw');
  // Runs picked by hand are judged as one look of their own.
  const judging =
    only.test || only.against
      ? ruleFor(power[0], power[1], {})
      : ruleFor(power[0], power[1], { test: planOf(request, testId), baseline: planOf(request, againstId) });
  return {
    testId,
    againstId,
    sides,
    power,
    judging: toldLook(request.look, power) ?? judging,
    around: {
      spread,
      remount: mountedAnew([...power[0], ...power[1]]) ? remount : undefined,
      drift: request.learned?.drift ?? usualDrift,
    },
  };
}

/** The rule of the look that is told. */
function toldLook(look: ResolvedRequest['look'], [test, baseline]: ComparedRuns): JudgingRule | undefined {
  if (look === undefined) return undefined;
  return look === 'one' ? oneLook(test, baseline) : { kind: 'every-look', look };
}

function planOf({ setups, plan }: ResolvedRequest, id: number) {
  return setups.find((setup) => setup.id === id)?.plan ?? plan ?? undefined;
}

/** The curves of a quantity: test, against, then every other setup that was repeated. */
export function comparedRuns(
  sides: ComparedPair['sides'],
  setups: readonly SetupCurves[],
  testId: number,
  againstId: number,
  quantity: Exclude<Quantity, 'timeS'>,
): ComparedRuns {
  const curves = (runs: readonly CountedRun[]) => runs.map((run) => runCurve(run, quantity));
  const alike = setups.filter(({ setupId }) => setupId !== testId && setupId !== againstId);
  return [
    curves(sides[0]),
    curves(sides[1]),
    ...alike.map((setup) => [...setup[quantity === 'powerKw' ? 'power' : 'torque']]).filter((runs) => runs.length > 1),
  ];
}

/** Respects in which the sides of a pair are not alike. */
export function unlikeOf(
  { request }: PairsOf,
  { testId, againstId, sides, around }: ComparedPair,
  range: { fromRpm: number; toRpm: number; drift: Drift | undefined },
): Unlikeness[] {
  const lone = loneBaseline(sides[1].map(measuredConditions));
  const respects = unlikeRespects({
    test: sides[0].map(measuredConditions),
    baseline: sides[1].map(measuredConditions),
    changes: changesBetween(request.setups, testId, againstId),
    drift: range.drift,
    judged: [range.fromRpm, range.toRpm],
    remountKnown: around.remount !== undefined,
  });
  return lone ? [...respects, lone] : respects;
}

/** The surroundings of a pair with the range that its sides share and the level of its rule; undefined where they share none. */
function aroundWhole({ power: [test, against], around, judging }: ComparedPair) {
  const speeds = test.length > 0 && against.length > 0 ? commonSpeeds([...test, ...against]) : undefined;
  if (!speeds) return undefined;
  const whole = [sampleAt(speeds, 0), sampleAt(speeds, speeds.length - 1)] as const;
  return { ...around, whole, level: levelOf(judging) };
}

/** A pair's difference over any range, with the interval that its judgement has; undefined where a run does not cover it. */
export function pairDifference(
  of: PairsOf,
  testId: number,
  againstId: number,
  fromRpm: number,
  toRpm: number,
): MeanDifference | undefined {
  const pair = comparedPair(of, testId, againstId);
  const around = aroundWhole(pair);
  return around && bandDifference(pair.power, fromRpm, toRpm, around);
}

/**
 * What may be said of a pair over the first chosen range, without the search
 * along the range: the same as the whole comparison says of it.
 * @returns undefined where a side has no run or the sides share no range
 */
export function pairJudgement(of: PairsOf, pair: ComparedPair): (PairJudgement & { paid: number }) | undefined {
  const [test, against] = pair.power;
  const around = aroundWhole(pair);
  if (!around) return undefined;
  const { whole } = around;
  const { covered: bands, uncovered, missed } = bandsCovered(test, against, of.request.bands ?? []);
  const [from, to] = bands[0] ?? whole;
  const range = chosenRange(pair.power, from, to, around, pair.judging);
  if (!range) return undefined;
  const rule = claimRule(pair.judging, pair.around, test, against);
  const others = bands.slice(1).flatMap((band) => chosenRange(pair.power, ...band, around, pair.judging) ?? []);
  const alone = firstVerdict([range, ...others], rule);
  const verdict = missed ? 'band not covered' : alone.verdict;
  return {
    testId: pair.testId,
    againstId: pair.againstId,
    ...range,
    judging: pair.judging,
    uncovered,
    paid: alone.paid,
    ...judged({ verdict, drift: range.drift }, pair.judging, unlikeOf(of, pair, range), uncovered),
  };
}

/** Spread from mounting to mounting as this job's setups show it, as a share of power. */
function remountOf(setups: readonly SetupCurves[]): KnownDeviation | undefined {
  const meansOf = (power: readonly RunCurve[]) => {
    const speeds = commonSpeeds(power);
    if (!speeds) return [];
    const [from, to] = [sampleAt(speeds, 0), sampleAt(speeds, speeds.length - 1)];
    const means = power.map((run) => ({
      atMs: run.atMs,
      remounted: run.remounted,
      bay: run.bay,
      mean: bandMean(run.engineSpeedRpm, run.values, from, to),
    }));
    const level = meanOf(means.map(({ mean }) => mean));
    const timed = means.flatMap(({ atMs, ...rest }) => (atMs === undefined ? [] : [{ atMs, ...rest }]));
    return byMounting(timed, (run) => run).map((runs) => runs.map(({ mean }) => mean / level));
  };
  return remountDeviation(setups.map(({ power }) => meansOf(power)));
}

/** Setups with their items; a change that nobody has read is one of words. */
export function stepsOf(setups: ResolvedRequest['setups']) {
  return setups.map((setup) => ({
    ...setup,
    parentId: setup.parentId ?? null,
    items: setup.items ?? [{ kind: 'words' as const, name: setup.change ?? '' }],
  }));
}

/** The steps that lead from one setup to the other, through the nearest setup that both come from. */
function changesBetween(setups: ResolvedRequest['setups'], testId: number, againstId: number): RecordedChange[] {
  const steps = stepsOf(setups);
  const [testLine, other] = [lineOf(steps, testId), lineOf(steps, againstId)];
  return (
    [...testLine.filter((setup) => !other.includes(setup)), ...other.filter((setup) => !testLine.includes(setup))]
      // A step without items only goes back to an earlier setup.
      .flatMap(({ letter, change, items }) =>
        change && items.length > 0 ? [{ letter, change, items: items.length }] : [],
      )
  );
}

/** One setup's counted runs. */
export interface SetupCurves {
  setupId: number;
  parentId?: number | null | undefined;
  power: readonly RunCurve[];
  torque: readonly RunCurve[];
  travel?: readonly Travel[];
  /** Of those that logged it, kPa. */
  boost?: readonly RunCurve[];
}
