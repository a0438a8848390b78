import type { MeanDifference } from '../statistics/mean-difference.ts';
import { bandDifference, differenceAt, type Comparison, type RunCurve } from './comparison.ts';
import { verdictOn, type Verdict } from './verdict.ts';

/** One row of the gain table, in kW or N·m. */
export interface GainRow {
  id: 'band' | 'common' | 'at-speed' | 'largest' | 'peak-power' | 'torque-at-speed' | 'peak-torque';
  quantity: 'power' | 'torque';
  baseline: number;
  test: number;
  difference: number;
  /** Half width of the 95 % interval; NaN where there is no spread to make one from. */
  halfWidth: number;
  /** `none` for figures that never get a verdict: peaks, each at its own speed, and the largest gain. */
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
 * @param band a span that matters, rpm; left out where the runs do not cover it
 * @param atRpm a chosen speed; likewise
 */
export function gainTable(
  groups: ComparedGroups,
  power: Comparison,
  torque: Comparison,
  band: readonly [number, number] | undefined,
  atRpm: number | undefined,
): GainRow[] {
  const rows: GainRow[] = [];
  const inBand = band && bandDifference(groups.power, band[0], band[1]);
  if (inBand) rows.push({ id: 'band', fromRpm: band[0], toRpm: band[1], ...judged('power', inBand) });
  rows.push({ id: 'common', fromRpm: power.fromRpm, toRpm: power.toRpm, ...judged('power', power.commonRange) });
  const powerAt = atRpm === undefined ? undefined : differenceAt(groups.power, atRpm);
  if (powerAt) rows.push({ id: 'at-speed', fromRpm: atRpm!, ...judged('power', powerAt) });
  rows.push(largestRow(power));
  rows.push(peakRow('peak-power', 'power', power));
  const torqueAt = atRpm === undefined ? undefined : differenceAt(groups.torque, atRpm);
  if (torqueAt) rows.push({ id: 'torque-at-speed', fromRpm: atRpm!, ...judged('torque', torqueAt) });
  rows.push(peakRow('peak-torque', 'torque', torque));
  return rows;
}

function figures(quantity: GainRow['quantity'], { test, baseline, difference, halfWidth }: MeanDifference) {
  return { quantity, test, baseline, difference, halfWidth };
}

function judged(quantity: GainRow['quantity'], difference: MeanDifference) {
  return { ...figures(quantity, difference), verdict: verdictOn(difference) };
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
