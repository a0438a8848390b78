import { sampleAt } from '../../numerics/sample-at.ts';
import { seriesOf } from '../../numerics/picked.ts';
import type { Recording } from '../../recording/recording.ts';
import { interpolateAll } from '../../numerics/interpolation.ts';
import { engineRpmOf } from '../../reduction/drive.ts';
import type { SweepDrive } from '../../reduction/sweep-drive.ts';
import type { LoggedEngine, RunLog } from './run-log.ts';

/** A run's motion, and the stretch of it that is looked at, s. */
export interface DriveAndSpan {
  drive: SweepDrive['drive'];
  sweep: Pick<SweepDrive['sweep'], 'startS' | 'endS'>;
}

/** Where a λ probe sits: its reading is late by the way of the gas, and off by the mixing at a tailpipe. */
export interface ProbePlace {
  /** s */
  delayS: number;
  /** Taken off the reading. */
  offset: number;
}

export const probeAtEngine: ProbePlace = { delayS: 0, offset: 0 };

/**
 * The log of a run from its own recording: every channel at the recording's
 * times, engine speed from the pickup or the ratio, λ moved back by its delay.
 */
export function runLog(
  { time, channels }: Recording,
  { drive, sweep }: DriveAndSpan,
  engine: LoggedEngine,
  probe: ProbePlace = probeAtEngine,
): RunLog {
  const rpm = engineRpmOf(drive);
  return {
    time,
    engineSpeedRpm: interpolateAll(drive.time, rpm, time),
    channels: new Map(
      channels.map(({ name, values }) => [name, name === 'lambda' ? atProbe(time, values, probe) : values]),
    ),
    startS: sweep.startS,
    endS: sweep.endS,
    engine,
  };
}

function atProbe(time: Float64Array, values: Float64Array, { delayS, offset }: ProbePlace): Float64Array {
  if (delayS === 0 && offset === 0) return values;
  const there = seriesOf(time.length, (index) => sampleAt(time, index) + delayS);
  return interpolateAll(time, values, there).map((value) => value - offset);
}
