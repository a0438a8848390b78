import { unlikeRespects } from '../../likeness/like-for-like.ts';
import type { Unlikeness } from '../../likeness/run-conditions.ts';
import type { MeanDifference } from '../../statistics/mean-difference.ts';
import { compareRuns, type Comparison, type JudgedRange } from '../../comparison/comparison.ts';
import { measuredConditions, runCurve, type CountedRun } from '../runs/figured-run.ts';
import type { ComparedRuns } from '../../comparison/run-curve.ts';
import { oneLook } from '../../comparison/judging-rule.ts';
import { caveatsOf } from '../../judgement/caveats.ts';
import { judged } from '../../judgement/pair-judgement.ts';
import { gainSentence } from '../../wording/gain-sentence.ts';
import { gainTable } from '../../comparison/gain-table.ts';
import type { ResolvedRequest } from '../runs/resolved-request.ts';
import type { ComparisonFigures } from './comparison-figures.ts';
import { type BorrowedCurve, borrowedRunCurves } from '../request/borrowed-curve.ts';

/**
 * A setup's runs beside a borrowed curve: differences, but no interval and no
 * verdict, for nobody knows how the curve was measured.
 *
 * @throws Refusal when the setup has no run, or the two share no range
 */
export function borrowedComparison(
  request: ResolvedRequest,
  borrowed: BorrowedCurve,
  runs: readonly CountedRun[],
): ComparisonFigures {
  const curves = borrowedRunCurves(borrowed, request.settings.gridRpm);
  const compare = (quantity: 'power' | 'torque') => {
    const groups: ComparedRuns = [
      runs.map((run) => runCurve(run, quantity === 'power' ? 'powerKw' : 'torqueNm')),
      [curves[quantity]],
    ];
    return { groups, comparison: unjudged(compareRuns(groups[0]!, groups[1]!, { bands: request.bands ?? [] })) };
  };
  const [power, torque] = [compare('power'), compare('torque')];
  const letter = request.setups.find(({ id }) => id === request.testId)?.letter ?? '?';
  const sides = { test: runs.map(measuredConditions), baseline: [] };
  const unlike = [...borrowedFindings(borrowed, request), ...unlikeRespects(sides)];
  const judging = oneLook(power.groups[0], power.groups[1]);
  const judgement = {
    testId: request.testId,
    againstId: request.againstId,
    ...power.comparison.ranges[0],
    judging,
    uncovered: power.comparison.uncovered,
    ...judged(power.comparison.ranges[0], judging, unlike),
  };
  return {
    compared: { test: runs.map(({ run }) => run.id), baseline: [] },
    power: power.comparison,
    torque: torque.comparison,
    judgement,
    withheld: true,
    channels: [],
    sentence: gainSentence({
      test: letter,
      baseline: borrowed.name,
      ranges: power.comparison.ranges,
      uncovered: power.comparison.uncovered,
      clearStretches: [],
      unit: request.powerUnit,
      withheld: judgement.withheld,
    }),
    rows: gainTable(
      { power: power.groups, torque: torque.groups },
      power.comparison,
      torque.comparison,
      request.atRpm,
      true,
    ).map((row) => ({ ...row, halfWidth: NaN })),
    unlike,
    deviating: [],
    caveats: caveatsOf(
      unlike,
      runs.map(({ figures: { label, found = [] } }) => ({ label, found })),
      [],
    ),
  };
}

function borrowedFindings(
  { name, origin, scale, errorKw }: BorrowedCurve,
  { settings }: ResolvedRequest,
): Unlikeness[] {
  const shown = settings.crank ? 'crank' : 'wheels';
  const found: Unlikeness = {
    id: 'borrowed',
    severity: 'stop',
    message: `“${name}” is a borrowed curve, for orientation only: ${origin}.${typeof errorKw === 'number' ? ` It was traced within ± ${errorKw.toFixed(1)} kW; how it was measured is another matter.` : ''}`,
    matters: 'another dyno, air or car moves a curve by several percent, and nobody knows its spread',
    remedy: 'Record a baseline of this car on this dyno.',
  };
  if (scale === shown) return [found];
  return [
    found,
    {
      id: 'other-scale',
      severity: 'stop',
      message: `“${name}” is told at the ${scale}, these runs are shown at the ${shown}.`,
      matters: 'between crank and wheels lie 10 to 25 %',
      remedy: scale === 'crank' ? 'Show an estimate for the crank.' : 'Show the figures at the wheels.',
    },
  ];
}

/** The same differences with nothing said of how sure they are. */
function unjudged(comparison: Comparison): Comparison {
  const unknown = (difference: MeanDifference): MeanDifference => ({
    ...difference,
    halfWidth: NaN,
    pValue: NaN,
    standardError: NaN,
    standardDeviation: NaN,
    df: 0,
    from: 'none',
    borrowsSpread: false,
    moved: 0,
    difference: difference.asMeasured,
    withoutDrift: false,
    leastSignificant: NaN,
    smallestDetectable: NaN,
  });
  const nothing = comparison.gain.map(() => NaN);
  const [first, ...more] = comparison.ranges;
  const unjudged = (range: JudgedRange): JudgedRange => ({
    ...range,
    difference: unknown(range.difference),
    drift: undefined,
    verdict: 'unknown',
  });
  return {
    ...comparison,
    gainHalfWidth: nothing,
    pointHalfWidth: nothing,
    repeatability: nothing,
    commonRange: unknown(comparison.commonRange),
    ranges: [unjudged(first), ...more.map(unjudged)],
    clearStretches: [],
    driftSuspected: false,
    peaks: { ...comparison.peaks, difference: unknown(comparison.peaks.difference) },
  };
}
