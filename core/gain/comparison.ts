import { bandMean } from '../curve/band-mean.ts';
import { peakOf, type Peak } from '../curve/peak.ts';
import { interpolate } from '../recording/search.ts';
import { Refusal } from '../refusal.ts';
import { meanDifference, meanOf, pooledSpread, type MeanDifference } from '../statistics/mean-difference.ts';
import { studentT } from '../statistics/student-t.ts';

/** One counted run's values over engine speed; speeds are whole multiples of one step shared by all runs. */
export interface RunCurve {
  engineSpeedRpm: Float64Array;
  values: Float64Array;
}

/** A mean of runs at each speed of a range. */
export interface MeanCurve {
  engineSpeedRpm: Float64Array;
  values: Float64Array;
}

export interface Comparison {
  /** The range that every run of both sides covers, rpm. */
  fromRpm: number;
  toRpm: number;
  engineSpeedRpm: Float64Array;
  test: Float64Array;
  baseline: Float64Array;
  gain: Float64Array;
  /** Half width of the 95 % interval of the gain at each speed by itself; NaN when no setup has two runs. */
  gainHalfWidth: Float64Array;
  /** 95 % of single baseline runs lie within the baseline's mean ± this; NaN likewise. */
  repeatability: Float64Array;
  commonRange: MeanDifference;
  peaks: { test: Peak; baseline: Peak; difference: MeanDifference };
  largest: { rpm: number; gain: number };
}

/**
 * The engine speeds that every one of the runs covers.
 * @returns undefined when they share less than two points
 */
export function commonSpeeds(runs: readonly RunCurve[]): Float64Array | undefined {
  if (runs.length === 0) return undefined;
  const from = Math.max(...runs.map((run) => run.engineSpeedRpm[0]!));
  const to = Math.min(...runs.map((run) => run.engineSpeedRpm[run.engineSpeedRpm.length - 1]!));
  const speeds = runs[0]!.engineSpeedRpm.filter((rpm) => rpm >= from && rpm <= to);
  return speeds.length < 2 ? undefined : speeds;
}

/** The runs' mean at each of the speeds; every run must cover them. */
export function meanCurve(runs: readonly RunCurve[], speeds: Float64Array): MeanCurve {
  return {
    engineSpeedRpm: speeds,
    values: speeds.map((rpm) => meanOf(runs.map((run) => interpolate(run.engineSpeedRpm, run.values, rpm)))),
  };
}

/**
 * Compares the counted runs of a setup with those of a baseline: per-run
 * figures first, then their means and Student's t over the spread pooled
 * within setups.
 *
 * @param alike the counted runs of the job's other setups, each a list, for the pooled spread
 * @throws Refusal when a side has no run, or the runs share no range
 */
export function compareRuns(
  test: readonly RunCurve[],
  baseline: readonly RunCurve[],
  alike: readonly (readonly RunCurve[])[] = [],
): Comparison {
  if (test.length === 0) throw new Refusal('The setup has no counted run yet: record one to compare it.');
  if (baseline.length === 0) throw new Refusal('The baseline has no counted run: record one, or bring one back.');
  const speeds = commonSpeeds([...test, ...baseline]);
  if (!speeds) {
    throw new Refusal(
      'The runs share no range of engine speed, so nothing can be compared: record one over the same range.',
    );
  }
  const fromRpm = speeds[0]!;
  const toRpm = speeds[speeds.length - 1]!;
  const groups = [test, baseline, ...alike];
  const covering = groups.map((runs) => runs.filter((run) => covers(run, fromRpm, toRpm)));
  const testMean = meanCurve(test, speeds).values;
  const baselineMean = meanCurve(baseline, speeds).values;
  const gainHalfWidth = new Float64Array(speeds.length);
  const repeatability = new Float64Array(speeds.length);
  const df = covering.reduce((sum, runs) => sum + Math.max(0, runs.length - 1), 0);
  const t = df > 0 ? studentT(0.95, df) : NaN;
  speeds.forEach((rpm, index) => {
    const { spread } = pooledSpread(
      covering.map((runs) => runs.map((run) => interpolate(run.engineSpeedRpm, run.values, rpm))),
    );
    gainHalfWidth[index] = t * spread * Math.sqrt(1 / test.length + 1 / baseline.length);
    repeatability[index] = t * spread;
  });
  const gain = testMean.map((value, index) => value - baselineMean[index]!);
  let largest = 0;
  for (let index = 1; index < gain.length; index++) if (gain[index]! > gain[largest]!) largest = index;
  return {
    fromRpm,
    toRpm,
    engineSpeedRpm: speeds,
    test: testMean,
    baseline: baselineMean,
    gain,
    gainHalfWidth,
    repeatability,
    commonRange: bandDifference(groups, fromRpm, toRpm)!,
    peaks: {
      test: peakOf(speeds, testMean),
      baseline: peakOf(speeds, baselineMean),
      difference: perRun(groups, (run) => peakOf(run.engineSpeedRpm, run.values).value)!,
    },
    largest: { rpm: speeds[largest]!, gain: gain[largest]! },
  };
}

function covers(run: RunCurve, fromRpm: number, toRpm: number): boolean {
  return run.engineSpeedRpm[0]! <= fromRpm && run.engineSpeedRpm[run.engineSpeedRpm.length - 1]! >= toRpm;
}

function perRun(
  groups: readonly (readonly RunCurve[])[],
  figure: (run: RunCurve) => number,
): MeanDifference | undefined {
  const [test, baseline, ...alike] = groups.map((runs) => runs.map(figure));
  if ([...test!, ...baseline!].some((value) => Number.isNaN(value))) return undefined;
  return meanDifference(
    test!,
    baseline!,
    alike.map((values) => values.filter((value) => !Number.isNaN(value))),
  );
}

/**
 * Difference of the means over a band, from each run's own band mean.
 * @param groups test runs, baseline runs, then those of setups alike
 * @returns undefined when a run of either side does not cover the band
 */
export function bandDifference(
  groups: readonly (readonly RunCurve[])[],
  fromRpm: number,
  toRpm: number,
): MeanDifference | undefined {
  return perRun(groups, (run) => bandMean(run.engineSpeedRpm, run.values, fromRpm, toRpm));
}

/** Difference at one engine speed; undefined when a run of either side does not reach it. */
export function differenceAt(groups: readonly (readonly RunCurve[])[], rpm: number): MeanDifference | undefined {
  return perRun(groups, (run) => (covers(run, rpm, rpm) ? interpolate(run.engineSpeedRpm, run.values, rpm) : NaN));
}
