import { gridBetween } from '../curve/grid.ts';
import { unlikeRespects } from '../likeness/like-for-like.ts';
import type { Unlikeness } from '../likeness/run-conditions.ts';
import { interpolate } from '../recording/search.ts';
import { engineTorqueNm } from '../reduction/live-power.ts';
import { Refusal } from '../refusal.ts';
import type { MeanDifference } from '../statistics/mean-difference.ts';
import { compareRuns, type Comparison } from './comparison.ts';
import { measuredConditions, runCurve, type CountedRun } from './figured-run.ts';
import type { ComparisonFigures, FiguresRequest } from './job-comparison.ts';
import type { MeanCurve, RunCurve } from './run-curve.ts';
import { gainSentence } from './sentence.ts';
import { gainTable } from './table.ts';

/** A power curve from elsewhere, for orientation. */
export interface BorrowedCurve {
  name: string;
  /** Where it comes from, in words. */
  origin: string;
  scale: 'crank' | 'wheels';
  /** Engine speed, rpm, rising, and power, kW. */
  points: readonly (readonly [number, number])[];
}

/**
 * A borrowed curve on the grid of engine speed that runs share.
 * @throws Refusal when it covers less than two points of it
 */
export function borrowedRunCurves(
  { name, points }: BorrowedCurve,
  gridRpm: number,
): Record<'power' | 'torque', MeanCurve> {
  const rpm = Float64Array.from(points, ([at]) => at);
  const kw = Float64Array.from(points, ([, value]) => value);
  const engineSpeedRpm = gridBetween(rpm[0]!, rpm[rpm.length - 1]!, gridRpm);
  if (engineSpeedRpm.length < 2)
    throw new Refusal(`The borrowed curve “${name}” covers less than ${2 * gridRpm} rpm: give more of its points.`);
  const values = engineSpeedRpm.map((at) => interpolate(rpm, kw, at));
  return {
    power: { engineSpeedRpm, values },
    torque: { engineSpeedRpm, values: values.map((value, index) => engineTorqueNm(value, engineSpeedRpm[index]!)) },
  };
}

/**
 * A setup's runs beside a borrowed curve: differences, but no interval and no
 * verdict, for nobody knows how the curve was measured.
 *
 * @throws Refusal when the setup has no run, or the two share no range
 */
export function borrowedComparison(
  request: FiguresRequest,
  borrowed: BorrowedCurve,
  runs: readonly CountedRun[],
): ComparisonFigures {
  const curves = borrowedRunCurves(borrowed, request.settings.gridRpm);
  const compare = (quantity: 'power' | 'torque') => {
    const groups: RunCurve[][] = [
      runs.map((run) => runCurve(run, quantity === 'power' ? 'powerKw' : 'torqueNm')),
      [curves[quantity]],
    ];
    return { groups, comparison: unjudged(compareRuns(groups[0]!, groups[1]!, { bands: request.bands ?? [] })) };
  };
  const [power, torque] = [compare('power'), compare('torque')];
  const letter = request.setups.find(({ id }) => id === request.testId)?.letter ?? '?';
  const sides = { test: runs.map(measuredConditions), baseline: [] };
  return {
    power: power.comparison,
    torque: torque.comparison,
    withheld: true,
    sentence: gainSentence({
      test: letter,
      baseline: borrowed.name,
      ranges: power.comparison.ranges,
      spans: [],
      unit: request.powerUnit,
      withheld: true,
    }),
    rows: gainTable(
      { power: power.groups, torque: torque.groups, time: [] },
      power.comparison,
      torque.comparison,
      request.atRpm,
      true,
    ).map((row) => ({ ...row, halfWidth: NaN })),
    unlike: [...borrowedFindings(borrowed, request), ...unlikeRespects(sides)],
  };
}

function borrowedFindings({ name, origin, scale }: BorrowedCurve, { settings }: FiguresRequest): Unlikeness[] {
  const shown = settings.crank ? 'crank' : 'wheels';
  const found: Unlikeness = {
    id: 'borrowed',
    severity: 'stop',
    message: `“${name}” is a borrowed curve, for orientation only: ${origin}.`,
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
  const unknown = (difference: MeanDifference): MeanDifference => ({ ...difference, halfWidth: NaN, pValue: NaN, standardError: NaN, spread: NaN, df: 0, from: 'none', borrowsSpread: false, leastSignificant: NaN, smallestDetectable: NaN }); // prettier-ignore
  const nothing = comparison.gain.map(() => NaN);
  return {
    ...comparison,
    gainHalfWidth: nothing,
    pointHalfWidth: nothing,
    repeatability: nothing,
    commonRange: unknown(comparison.commonRange),
    ranges: comparison.ranges.map((range) => ({
      ...range,
      difference: unknown(range.difference),
      drift: undefined,
      verdict: 'unknown',
    })),
    spans: [],
    driftSuspected: false,
    peaks: { ...comparison.peaks, difference: unknown(comparison.peaks.difference) },
  };
}
