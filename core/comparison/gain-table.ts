import { sampleAt } from '../numerics/sample-at.ts';
import { bandMean } from '../curve/band-mean.ts';
import { peakOf } from '../curve/peak.ts';
import { interpolate } from '../numerics/interpolation.ts';
import type { MeanDifference } from '../statistics/mean-difference.ts';
import { differenceAt, differencePerRun, type Comparison, type JudgedRange } from './comparison.ts';
import { firstReach } from './earliness.ts';
import { shareOfWhole, type Surroundings } from './surroundings.ts';
import { covers, type ComparedRuns, type RunCurve } from './run-curve.ts';
import type { ClearStretch } from './clear-stretches.ts';
import type { Verdict } from './verdict.ts';

/** One row of the gain table, in kW, N·m, s or rpm. */
export interface GainRow {
  id:
    | 'band'
    | 'common'
    | 'stretch'
    | 'at-speed'
    | 'largest'
    | 'peak-power'
    | 'torque-band'
    | 'torque-common'
    | 'torque-at-speed'
    | 'peak-torque'
    | 'swept'
    | 'reaches-peak';
  quantity: 'power' | 'torque' | 'time' | 'engine speed';
  baseline: number;
  test: number;
  difference: number;
  /** Half width of the 95 % interval; NaN where there is no spread to make one from. */
  halfWidth: number;
  /** Probability of a difference as large by scatter alone; NaN where no verdict is given. */
  pValue: number;
  /** Where the interval's spread comes from. */
  from: MeanDifference['from'];
  /** `none` where no verdict is given: what was not chosen beforehand, peaks, each at its own speed, and the largest gain. */
  verdict: Verdict | 'none';
  /** The speed or range that the row is about, rpm. */
  fromRpm?: number;
  toRpm?: number;
  /** Peaks: where each lies, and whether either lies at the end of its runs. */
  testRpm?: number;
  baselineRpm?: number;
  atEdge?: boolean;
}

/** The groups of runs that differences are taken over: test, baseline, then the setups alike. */
export interface ComparedGroups {
  power: ComparedRuns;
  torque: ComparedRuns;
  /** Time over engine speed, s; absent where a dyno sets the pace. */
  time?: ComparedRuns | undefined;
}

/** Clear stretches that the table names at most; the sentence names as many. */
const mostStretches = 3;

/**
 * The gain table of a comparison.
 * @param atRpm a chosen speed, rpm; left out where the runs do not cover it
 * @param withheld runs not like for like: figures, no verdict, no span
 */
export function gainTable(
  groups: ComparedGroups,
  power: Comparison,
  torque: Comparison,
  atRpm: number | undefined,
  withheld: boolean,
  around: Surroundings = {},
): GainRow[] {
  const rows: GainRow[] = [];
  const within: Surroundings = { ...around, whole: [power.fromRpm, power.toRpm] };
  const whole = (range: JudgedRange) => range.fromRpm === power.fromRpm && range.toRpm === power.toRpm;
  for (const range of power.ranges.filter((candidate) => !whole(candidate))) {
    rows.push({ id: 'band', ...limits(range), ...figures('power', range.difference), verdict: range.verdict });
  }
  rows.push({
    id: 'common',
    ...limits(power),
    ...figures('power', power.commonRange),
    verdict: power.ranges.find(whole)?.verdict ?? 'none',
  });
  if (!withheld)
    rows.push(...power.clearStretches.slice(0, mostStretches).map((stretch) => stretchRow(stretch, power)));
  const atSpeed = (id: 'at-speed' | 'torque-at-speed', quantity: 'power' | 'torque'): GainRow[] => {
    if (atRpm === undefined) return [];
    const difference = differenceAt(groups[quantity], atRpm, within);
    return difference ? [{ id, fromRpm: atRpm, ...unjudged(quantity, difference) }] : [];
  };
  rows.push(...atSpeed('at-speed', 'power'));
  rows.push(largestRow(power));
  rows.push(peakRow('peak-power', 'power', power));
  const torqueWhole = (range: JudgedRange) => range.fromRpm === torque.fromRpm && range.toRpm === torque.toRpm;
  for (const range of torque.ranges)
    rows.push({
      id: torqueWhole(range) ? 'torque-common' : 'torque-band',
      ...limits(range),
      ...figures('torque', range.difference),
      verdict: range.verdict,
    });
  rows.push(...atSpeed('torque-at-speed', 'torque'));
  rows.push(
    peakRow('peak-torque', 'torque', torque),
    ...sweptRows(groups, power, within),
    ...reachesRow(groups, power),
  );
  return withheld ? rows.map((row) => ({ ...row, verdict: 'none' })) : rows;
}

function limits({ fromRpm, toRpm }: { fromRpm: number; toRpm: number }) {
  return { fromRpm, toRpm };
}

function figures(
  quantity: GainRow['quantity'],
  { test, baseline, difference, halfWidth, pValue, from }: MeanDifference,
) {
  return { quantity, test, baseline, difference, halfWidth, pValue, from };
}

/** A speed under the crosshair was not chosen beforehand: its interval is shown, no verdict. */
function unjudged(quantity: GainRow['quantity'], difference: MeanDifference) {
  return { ...figures(quantity, difference), verdict: 'none' as const };
}

/** Where the gain begins and ends: a stretch found in the data; its interval holds for all of them at once. */
function stretchRow({ fromRpm, toRpm, mean, halfWidth, verdict }: ClearStretch, power: Comparison): GainRow {
  const over = (values: Float64Array) => bandMean(power.engineSpeedRpm, values, fromRpm, toRpm);
  return {
    id: 'stretch',
    quantity: 'power',
    test: over(power.test),
    baseline: over(power.baseline),
    difference: mean,
    halfWidth,
    pValue: NaN,
    from: power.commonRange.from,
    verdict,
    fromRpm,
    toRpm,
  };
}

/** However short a sweep, its time scatters by this much: what a time between two samples is known to, s. */
const leastDeviationS = 0.002;

/** How long each range that was chosen took to sweep, as driven: no air is corrected for. */
function sweptRows({ time }: ComparedGroups, { ranges }: Comparison, within: Surroundings): GainRow[] {
  if (!time) return [];
  return ranges.flatMap((range) => {
    const { fromRpm, toRpm } = range;
    const swept = differencePerRun(
      time,
      (run) => (covers(run, fromRpm, toRpm) ? timeAt(run, toRpm) - timeAt(run, fromRpm) : NaN),
      { ...within, leastDeviation: leastDeviationS },
      shareOfWhole(within, fromRpm, toRpm),
    );
    return swept ? [{ id: 'swept' as const, ...limits(range), ...unjudged('time', swept) }] : [];
  });
}

function timeAt({ engineSpeedRpm, values }: RunCurve, rpm: number): number {
  return interpolate(engineSpeedRpm, values, rpm);
}

/** The speed at which the test reaches what the baseline makes at most, against the baseline's own. */
function reachesRow({ power: [test, baseline] }: ComparedGroups, { earliness, commonRange }: Comparison): GainRow[] {
  const { reachesRpm, baselineRpm, baselinePeak, staysToRpm } = earliness;
  if (reachesRpm === undefined) return [];
  const ofRuns = differencePerRun([test, baseline], (run) =>
    test.includes(run)
      ? (firstReach(run.engineSpeedRpm, run.values, baselinePeak) ?? NaN)
      : peakOf(run.engineSpeedRpm, run.values).rpm,
  );
  return [
    {
      id: 'reaches-peak',
      quantity: 'engine speed',
      test: reachesRpm,
      baseline: baselineRpm,
      difference: reachesRpm - baselineRpm,
      halfWidth: ofRuns?.halfWidth ?? NaN,
      pValue: NaN,
      from: ofRuns?.from ?? commonRange.from,
      verdict: 'none',
      fromRpm: reachesRpm,
      ...(staysToRpm === undefined ? {} : { toRpm: staysToRpm }),
    },
  ];
}

function largestRow(power: Comparison): GainRow {
  const at = power.engineSpeedRpm.indexOf(power.largest.rpm);
  return {
    id: 'largest',
    quantity: 'power',
    test: sampleAt(power.test, at),
    baseline: sampleAt(power.baseline, at),
    difference: power.largest.gain,
    halfWidth: sampleAt(power.gainHalfWidth, at),
    pValue: NaN,
    from: power.commonRange.from,
    verdict: 'none',
    fromRpm: power.largest.rpm,
  };
}

function peakRow(id: 'peak-power' | 'peak-torque', quantity: GainRow['quantity'], { peaks }: Comparison): GainRow {
  return {
    id,
    ...figures(quantity, peaks.difference),
    verdict: 'none',
    testRpm: peaks.test.rpm,
    baselineRpm: peaks.baseline.rpm,
    atEdge: peaks.test.atEdge !== false || peaks.baseline.atEdge !== false,
  };
}
