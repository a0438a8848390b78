import type { MeanDifference } from '../statistics/mean-difference.ts';
import { differenceAt, type Comparison, type JudgedRange } from './comparison.ts';
import type { RunCurve } from './run-curve.ts';
import type { Verdict } from './verdict.ts';

/** One row of the gain table, in kW or N·m. */
export interface GainRow {
  id: 'band' | 'common' | 'at-speed' | 'largest' | 'peak-power' | 'torque-at-speed' | 'peak-torque';
  quantity: 'power' | 'torque';
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
  /** The speed or span that the row is about, rpm. */
  fromRpm?: number;
  toRpm?: number;
  /** Peaks: where each lies, and whether either lies at the end of its runs. */
  testRpm?: number;
  baselineRpm?: number;
  atEdge?: boolean;
}

/** The groups of runs that differences are taken over: test, baseline, then the setups alike. */
export interface ComparedGroups {
  power: RunCurve[][];
  torque: RunCurve[][];
}

/**
 * The gain table of a comparison.
 * @param atRpm a chosen speed, rpm; left out where the runs do not cover it
 */
export function gainTable(
  groups: ComparedGroups,
  power: Comparison,
  torque: Comparison,
  atRpm: number | undefined,
): GainRow[] {
  const rows: GainRow[] = [];
  const whole = (range: JudgedRange) => range.fromRpm === power.fromRpm && range.toRpm === power.toRpm;
  for (const range of power.ranges.filter((one) => !whole(one))) {
    rows.push({ id: 'band', ...limits(range), ...figures('power', range.difference), verdict: range.verdict });
  }
  rows.push({
    id: 'common',
    ...limits(power),
    ...figures('power', power.commonRange),
    verdict: power.ranges.find(whole)?.verdict ?? 'none',
  });
  const powerAt = atRpm === undefined ? undefined : differenceAt(groups.power, atRpm);
  if (powerAt) rows.push({ id: 'at-speed', fromRpm: atRpm!, ...unjudged('power', powerAt) });
  rows.push(largestRow(power));
  rows.push(peakRow('peak-power', 'power', power));
  const torqueAt = atRpm === undefined ? undefined : differenceAt(groups.torque, atRpm);
  if (torqueAt) rows.push({ id: 'torque-at-speed', fromRpm: atRpm!, ...unjudged('torque', torqueAt) });
  rows.push(peakRow('peak-torque', 'torque', torque));
  return rows;
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

function largestRow(power: Comparison): GainRow {
  const at = power.engineSpeedRpm.indexOf(power.largest.rpm);
  return {
    id: 'largest',
    quantity: 'power',
    test: power.test[at]!,
    baseline: power.baseline[at]!,
    difference: power.largest.gain,
    halfWidth: power.gainHalfWidth[at]!,
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
