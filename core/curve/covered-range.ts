import { sampleAt } from '../numerics/sample-at.ts';

/** A range of engine speed, rpm. */
export type SpeedRange = readonly [from: number, to: number];

/** What every one of the runs covers, rpm; its end lies below its beginning where they share nothing. */
export function rangeOf(runs: readonly { engineSpeedRpm: Float64Array }[]): SpeedRange {
  const from = Math.max(...runs.map((run) => sampleAt(run.engineSpeedRpm, 0)));
  const to = Math.min(...runs.map((run) => sampleAt(run.engineSpeedRpm, run.engineSpeedRpm.length - 1)));
  return [from, to];
}

/** Runs or figures whose ranges begin or end this far apart are of other ranges, rpm. */
export const otherRangeRpm = 150;
