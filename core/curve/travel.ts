import { sampleAt } from '../numerics/sample-at.ts';
import { interpolate } from '../numerics/interpolation.ts';
import { meanOf } from '../numerics/mean.ts';

/** How a run, or a setup's runs on average, went through the engine's speeds; arrays of one length. */
export interface Travel {
  engineSpeedRpm: Float64Array;
  /** Time since some speed, s. */
  timeS: Float64Array;
  /** Road speed, km/h; of rollers of known radius. */
  roadSpeedKmh?: Float64Array | undefined;
}

/**
 * The mean of several runs at speeds that each of them covers, time counted
 * from the first speed.
 */
export function meanTravel(runs: readonly Travel[], speeds: Float64Array): Travel {
  const mean = (value: (run: Travel, rpm: number) => number) =>
    speeds.map((rpm) => meanOf(runs.map((run) => value(run, rpm))));
  const timeAt = (run: Travel, rpm: number) => interpolate(run.engineSpeedRpm, run.timeS, rpm);
  const timeS = mean((run, rpm) => timeAt(run, rpm) - timeAt(run, sampleAt(speeds, 0)));
  if (!runs.every((run) => run.roadSpeedKmh)) return { engineSpeedRpm: speeds, timeS };
  return {
    engineSpeedRpm: speeds,
    timeS,
    roadSpeedKmh: mean(({ engineSpeedRpm, roadSpeedKmh }, rpm) =>
      roadSpeedKmh ? interpolate(engineSpeedRpm, roadSpeedKmh, rpm) : NaN,
    ),
  };
}
