import { bandMean } from '../curve/band-mean.ts';
import { crankAssumption } from '../dyno/crank.ts';
import { unlikeRespects } from '../likeness/like-for-like.ts';
import type { RecordedChange } from '../likeness/run-conditions.ts';
import { byMounting, remountAfterMs } from '../likeness/mountings.ts';
import { Refusal } from '../refusal.ts';
import { moreRunsFor } from '../statistics/detectable.ts';
import type { KnownDeviation } from '../statistics/mean-difference.ts';
import { remountDeviation } from '../statistics/remount.ts';
import { lineOf } from '../setup/difference.ts';
import { borrowedComparison } from './borrowed-comparison.ts';
import { compareRuns, type Comparison } from '../comparison/comparison.ts';
import { measuredConditions, runCurve, type CountedRun } from './figured-run.ts';
import { commonSpeeds, type ComparedRuns } from '../comparison/run-curve.ts';
import { gainSentence } from '../wording/gain-sentence.ts';
import type { SetupCurves } from './setup-figures.ts';
import { gainTable } from '../comparison/gain-table.ts';
import type { ResolvedRequest } from './resolved-request.ts';
import type { ComparisonFigures, Detectable } from './comparison-figures.ts';
import { meanOf } from '../numerics/mean.ts';

/** A change that owners ask about: 1 % of power. */
export const wantedShare = 0.01;

/**
 * The comparison of two of a job's setups with everything said of it.
 * @param counted the counted runs of a setup
 * @throws Refusal when there is nothing to compare
 */
export function comparisonFigures(
  request: ResolvedRequest,
  setups: readonly SetupCurves[],
  counted: (setupId: number) => CountedRun[],
): ComparisonFigures {
  const { testId, againstId, testRuns, againstRuns } = request;
  if (request.borrowed)
    return borrowedComparison(
      request,
      request.borrowed,
      counted(testId).filter(({ run }) => !testRuns || testRuns.includes(run.id)),
    );
  if (testId === againstId && !(testRuns && againstRuns)) {
    const letter = request.setups.find(({ id }) => id === testId)?.letter ?? 'The setup';
    throw new Refusal(`${letter} stands by itself: choose or record another setup to see what a change gives.`);
  }
  const chosen = (id: number, only: readonly number[] | undefined) =>
    counted(id).filter(({ run }) => !only || only.includes(run.id));
  const sides = [chosen(testId, testRuns), chosen(againstId, againstRuns)] as const;
  const groups = (quantity: 'power' | 'torque'): ComparedRuns => {
    const alike = setups.filter(({ setupId }) => setupId !== testId && setupId !== againstId);
    const curves = (runs: readonly CountedRun[]) =>
      runs.map((run) => runCurve(run, quantity === 'power' ? 'powerKw' : 'torqueNm'));
    return [
      curves(sides[0]),
      curves(sides[1]),
      ...alike.map((setup) => [...setup[quantity]]).filter((runs) => runs.length > 1),
    ];
  };
  // Where a dyno sets the pace, the time says nothing of the car.
  const freely = sides.flat().every(({ run }) => run.conditions.dyno.kind === 'inertia-roller');
  const times = (runs: readonly CountedRun[]) => runs.map((run) => runCurve(run, 'timeS'));
  const time: ComparedRuns | undefined = freely ? [times(sides[0]), times(sides[1])] : undefined;
  const compared = { power: groups('power'), torque: groups('torque'), time };
  const [test, baseline] = [sides[0].map(measuredConditions), sides[1].map(measuredConditions)];
  const mounted = remountBetween(compared.power) ? (remountOf(setups) ?? request.learned?.remount) : undefined;
  const compare = ([of, against, ...alike]: ComparedRuns) =>
    compareRuns(of, against, {
      alike,
      bands: request.bands ?? [],
      borrowed: request.learned?.within,
      remount: mounted,
    });
  const power = compare(compared.power);
  const torque = compare(compared.torque);
  const unlike = unlikeRespects({
    test,
    baseline,
    changes: changesBetween(request.setups, testId, againstId),
    drift: power.ranges[0].drift,
    remountKnown: mounted !== undefined,
  });
  const withheld = unlike.some((finding) => finding.severity === 'stop');
  const name = (id: number, side: 0 | 1, only: readonly number[] | undefined) =>
    only
      ? sides[side].map(({ figures }) => figures.label).join(', ')
      : (request.setups.find((setup) => setup.id === id)?.letter ?? '?');
  const sentence = gainSentence({
    test: name(testId, 0, testRuns),
    baseline: name(againstId, 1, againstRuns),
    ranges: power.ranges,
    clearStretches: power.clearStretches,
    unit: request.powerUnit,
    withheld,
    estimate: request.settings.crank && crankAssumption(request.settings.crank),
  });
  const detectable = detectableOf(power, test.length, baseline.length);
  return {
    compared: { test: sides[0].map(({ run }) => run.id), baseline: sides[1].map(({ run }) => run.id) },
    power,
    torque,
    withheld,
    sentence,
    rows: gainTable(compared, power, torque, request.atRpm, withheld),
    unlike,
    ...(detectable ? { detectable } : {}),
  };
}

function detectableOf({ ranges }: Comparison, runs: number, otherRuns: number): Detectable | undefined {
  const { standardDeviation, df, leastSignificant, smallestDetectable, baseline } = ranges[0].difference;
  if (!(df > 0)) return undefined;
  const wantedKw = wantedShare * baseline;
  return {
    spreadKw: standardDeviation,
    leastSignificantKw: leastSignificant,
    smallestDetectableKw: smallestDetectable,
    wantedShare,
    wantedKw,
    moreRuns: moreRunsFor(wantedKw, standardDeviation, runs, otherRuns, Math.max(0, df - (runs + otherRuns - 2))),
  };
}

/** Whether the two sides lie more than a mounting apart. */
function remountBetween([test, baseline]: ComparedRuns): boolean {
  const times = [...test, ...baseline].flatMap((run) => run.atMs ?? []);
  return times.length > 1 && Math.max(...times) - Math.min(...times) > remountAfterMs;
}

/** Spread from mounting to mounting as this job's setups show it, as a share of power. */
function remountOf(setups: readonly SetupCurves[]): KnownDeviation | undefined {
  const figures = setups.map(({ power }) => {
    const speeds = commonSpeeds(power);
    if (!speeds) return [];
    const [from, to] = [speeds[0]!, speeds[speeds.length - 1]!];
    const means = power.map((run) => ({
      atMs: run.atMs,
      mean: bandMean(run.engineSpeedRpm, run.values, from, to),
    }));
    const level = meanOf(means.map(({ mean }) => mean));
    const timed = means.flatMap(({ atMs, mean }) => (atMs === undefined ? [] : [{ atMs, mean }]));
    return byMounting(timed, ({ atMs }) => atMs).map((runs) => runs.map(({ mean }) => mean / level));
  });
  return remountDeviation(figures);
}

/** The steps that lead from one setup to the other, through the nearest setup that both come from. */
function changesBetween(setups: ResolvedRequest['setups'], testId: number, againstId: number): RecordedChange[] {
  const steps = setups.map((setup) => ({
    ...setup,
    parentId: setup.parentId ?? null,
    items: setup.items ?? [{ kind: 'words' as const, name: setup.change ?? '' }],
  }));
  const [testLine, other] = [lineOf(steps, testId), lineOf(steps, againstId)];
  return (
    [...testLine.filter((setup) => !other.includes(setup)), ...other.filter((setup) => !testLine.includes(setup))]
      // A step without items only goes back to an earlier setup.
      .flatMap(({ letter, change, items }) =>
        change && items.length > 0 ? [{ letter, change, items: items.length }] : [],
      )
  );
}
