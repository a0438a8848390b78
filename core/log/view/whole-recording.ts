import { sampleAt } from '../../numerics/sample-at.ts';
import type { DynoProfile } from '../../dyno/dyno-profile.ts';
import { valuesOf, type Recording } from '../../recording/recording.ts';
import { driveOf, type Drive } from '../../reduction/drive.ts';
import { Refusal } from '../../refusal.ts';
import { wholeLog, type LoggerBeside, type WholeLog } from './logged-pull.ts';
import type { LoggedEngine } from '../pull/run-log.ts';

/** A recording with the machine that it was made on. */
export interface RecordedRun {
  recording: Recording;
  dyno: DynoProfile;
  engineToDrumRatio: number | undefined;
  beside: readonly LoggerBeside[];
}

/** The log of a whole recording and not of its pull; of one without a drum, such as from the road, with its own engine speed. */
export function logOfWhole(
  { recording, dyno, engineToDrumRatio, beside }: RecordedRun,
  engine: LoggedEngine,
): WholeLog {
  const drive = driveWhereItCan(recording, dyno, engineToDrumRatio);
  if (!drive) return withoutDrive(recording, engine, beside);
  const { time } = recording;
  return wholeLog(
    recording,
    { drive, sweep: { startS: sampleAt(time, 0), endS: sampleAt(time, time.length - 1) } },
    engine,
    beside,
  );
}

function driveWhereItCan(recording: Recording, dyno: DynoProfile, ratio: number | undefined): Drive | undefined {
  try {
    return driveOf(recording, dyno, ratio);
  } catch (error) {
    if (error instanceof Refusal) return undefined;
    throw error;
  }
}

/** Where no drum's speed can be made of it: its own channels, and no logger can be laid beside them. */
function withoutDrive(recording: Recording, engine: LoggedEngine, beside: readonly LoggerBeside[]): WholeLog {
  const { time, channels } = recording;
  return {
    log: {
      time,
      engineSpeedRpm: valuesOf(recording, 'engineSpeed') ?? new Float64Array(time.length).fill(NaN),
      channels: new Map(channels.map(({ name, values }) => [name, values])),
      startS: sampleAt(time, 0),
      endS: sampleAt(time, time.length - 1),
      engine,
    },
    units: new Map(channels.map(({ name, unit }) => [name, unit])),
    loggers: beside.map(({ name }) => ({ name, refused: 'The run has no speed that it could be time-aligned by.' })),
  };
}
