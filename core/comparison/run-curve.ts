import { sampleAt } from '../numerics/sample-at.ts';
import { rangeOf } from '../curve/covered-range.ts';
import { interpolateAll } from '../numerics/interpolation.ts';
import { meanOf } from '../numerics/mean.ts';

/** One counted run's values over engine speed; speeds are whole multiples of one step shared by all runs. */
export interface RunCurve {
  engineSpeedRpm: Float64Array;
  values: Float64Array;
  /** When it was made, ms; runs without are taken to have no order. */
  atMs?: number | undefined;
  /** Which run of its job it was, those in no figure counted, too. */
  place?: number | undefined;
  /** Strapped anew before it, where somebody said. */
  remounted?: boolean | null | undefined;
  bay?: number | undefined;
  /** Which state the car was in: a return has that of the setup that it went back to. */
  state?: number | undefined;
}

/** The test's runs, the baseline's, then those of each setup alike, which tell of the spread. */
export type ComparedRuns = readonly [
  test: readonly RunCurve[],
  baseline: readonly RunCurve[],
  ...alike: (readonly RunCurve[])[],
];

/** A mean of runs at each speed of a range. */
export interface MeanCurve {
  engineSpeedRpm: Float64Array;
  values: Float64Array;
}

/**
 * The engine speeds that every one of the runs covers.
 * @returns undefined when they share less than two points
 */
export function commonSpeeds(runs: readonly RunCurve[]): Float64Array | undefined {
  const [first] = runs;
  if (!first) return undefined;
  const [from, to] = rangeOf(runs);
  const speeds = first.engineSpeedRpm.filter((rpm) => rpm >= from && rpm <= to);
  return speeds.length < 2 ? undefined : speeds;
}

/** A run's values at each of the speeds; it must cover them. */
export function valuesAt(run: RunCurve, speeds: Float64Array): Float64Array {
  return interpolateAll(run.engineSpeedRpm, run.values, speeds);
}

/** The runs' mean at each of the speeds; every run must cover them. */
export function meanCurve(runs: readonly RunCurve[], speeds: Float64Array): MeanCurve {
  const values = runs.map((run) => valuesAt(run, speeds));
  return {
    engineSpeedRpm: speeds,
    values: speeds.map((_, index) => meanOf(values.map((run) => sampleAt(run, index)))),
  };
}

export function covers(run: RunCurve, fromRpm: number, toRpm: number): boolean {
  return (
    sampleAt(run.engineSpeedRpm, 0) <= fromRpm && sampleAt(run.engineSpeedRpm, run.engineSpeedRpm.length - 1) >= toRpm
  );
}
