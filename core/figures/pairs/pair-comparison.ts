import { crankAssumption } from '../../dyno/crank.ts';
import { Refusal } from '../../refusal.ts';
import { borrowedComparison } from './borrowed-comparison.ts';
import { channelChanges, type RunChannels } from '../../comparison/channel-changes.ts';
import { compareRuns, type Comparison } from '../../comparison/comparison.ts';
import {
  comparedPair,
  comparedRuns,
  unlikeOf,
  type ChosenRuns,
  type ComparedPair,
  type PairsOf,
} from './compared-pair.ts';
import { bandMean } from '../../curve/band-mean.ts';
import { deviatingRepeat, type RepeatedMean } from '../../judgement/deviating-repeat.ts';
import { measuredConditions, runCurve, type CountedRun } from '../runs/figured-run.ts';
import type { ComparedRuns } from '../../comparison/run-curve.ts';
import { gainSentence } from '../../wording/gain-sentence.ts';
import { worstOf } from '../../limits/broken-limits.ts';
import { gainTable } from '../../comparison/gain-table.ts';
import { caveatsOf, type CaveatRun } from '../../judgement/caveats.ts';
import { judged } from '../../judgement/pair-judgement.ts';
import type { ComparisonFigures, Detectable } from './comparison-figures.ts';

/**
 * The comparison of two of a job's setups with everything said of it.
 * @throws Refusal when there is nothing to compare
 */
export function comparisonFigures(of: PairsOf): ComparisonFigures {
  const { request, counted } = of;
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
  return comparisonOfPair(of, testId, againstId, { test: testRuns, against: againstRuns });
}

/**
 * Two setups of a job with everything said of them.
 * @param only ids of the runs of either side; all counted ones where left out
 * @throws Refusal when there is nothing to compare
 */
export function comparisonOfPair(
  of: PairsOf,
  testId: number,
  againstId: number,
  only: ChosenRuns = {},
): ComparisonFigures {
  const { request, setups } = of;
  const pair = comparedPair(of, testId, againstId, only);
  const { sides } = pair;
  // Where a dyno sets the pace, the time says nothing of the car.
  const freely = sides.flat().every(({ run }) => run.conditions.dyno.kind === 'inertia-roller');
  const times = (runs: readonly CountedRun[]) => runs.map((run) => runCurve(run, 'timeS'));
  const time: ComparedRuns | undefined = freely ? [times(sides[0]), times(sides[1])] : undefined;
  const torqueRuns = comparedRuns(sides, setups, testId, againstId, 'torqueNm');
  const compared = { power: pair.power, torque: torqueRuns, time };
  const compare = ([test, baseline, ...alike]: ComparedRuns) =>
    compareRuns(test, baseline, { alike, bands: request.bands ?? [], ...pair.around, judging: pair.judging });
  const power = compare(compared.power);
  const torque = compare(compared.torque);
  const [first] = power.ranges;
  const unlike = unlikeOf(of, pair, first);
  const { uncovered } = power;
  const judgement = {
    testId,
    againstId,
    ...first,
    judging: pair.judging,
    uncovered,
    ...judged(first, pair.judging, unlike, uncovered),
  };
  const withheld = unlike.some((finding) => finding.severity === 'stop');
  const name = (id: number, side: 0 | 1, ids: readonly number[] | undefined) =>
    ids
      ? sides[side].map(({ figures }) => figures.label).join(', ')
      : (request.setups.find((setup) => setup.id === id)?.letter ?? '?');
  const sentence = gainSentence({
    test: name(testId, 0, only.test),
    baseline: name(againstId, 1, only.against),
    ranges: power.ranges,
    uncovered,
    clearStretches: power.clearStretches,
    unit: request.powerUnit,
    withheld: judgement.withheld,
    broken: worstOf(sides[0].flatMap(({ figures }) => figures.broken)),
    estimate: request.settings.crank && crankAssumption(request.settings.crank),
  });
  const detectable = detectableOf(power);
  return {
    compared: { test: sides[0].map(({ run }) => run.id), baseline: sides[1].map(({ run }) => run.id) },
    power,
    torque,
    judgement,
    withheld,
    sentence,
    rows: gainTable(compared, power, torque, request.atRpm, withheld, pair.around),
    unlike,
    deviating: sides.flatMap(
      (side) =>
        deviatingRepeat(
          side.map((run) => repeated(run, first)),
          of.spread,
        ) ?? [],
    ),
    channels: channelChanges([channelsOf(sides[0]), channelsOf(sides[1]), ...othersOf(of, pair)], request.bands?.[0]),
    caveats: caveatsOf(unlike, sides[0].map(told), sides[1].map(told)),
    ...(detectable ? { detectable } : {}),
  };
}

/** A run's mean over the judged range, with its circumstances. */
function repeated(run: CountedRun, { fromRpm, toRpm }: { fromRpm: number; toRpm: number }): RepeatedMean {
  const { engineSpeedRpm, powerKw } = run.figures.curve;
  const { id, label } = run.figures;
  return { id, label, meanKw: bandMean(engineSpeedRpm, powerKw, fromRpm, toRpm), conditions: measuredConditions(run) };
}

function channelsOf(runs: readonly CountedRun[]): RunChannels[] {
  return runs.map(({ run }) => run.logged?.means ?? new Map<string, never>());
}

/** The channels of the job's other setups: they tell of the spread. */
function othersOf({ setups, counted }: PairsOf, { testId, againstId }: ComparedPair): RunChannels[][] {
  return setups
    .filter(({ setupId }) => setupId !== testId && setupId !== againstId)
    .map(({ setupId }) => channelsOf(counted(setupId)));
}

/** A run with what was found on it. */
function told({ figures: { label, found = [] } }: CountedRun): CaveatRun {
  return { label, found };
}

function detectableOf({ ranges }: Comparison): Detectable | undefined {
  const { standardDeviation, df, leastSignificant, smallestDetectable } = ranges[0].difference;
  if (!(df > 0)) return undefined;
  return {
    spreadKw: standardDeviation,
    leastSignificantKw: leastSignificant,
    smallestDetectableKw: smallestDetectable,
  };
}
