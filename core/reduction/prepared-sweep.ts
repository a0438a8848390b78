import type { Recording } from '../recording/recording.ts';
import { driveOf } from './drive.ts';
import type { DynoProfile } from '../dyno/dyno-profile.ts';
import { findSweep } from './sweep.ts';
import { sweepDrive, type SweepDrive } from './sweep-drive.ts';

/**
 * Finds the sweep in a recording and makes it ready for curves at any settings.
 *
 * @param engineToDrumRatio engine speed ÷ drum speed, for recordings without a pickup
 * @throws Refusal when a channel is missing or no sweep is found
 */
export function preparedSweep(recording: Recording, dyno: DynoProfile, engineToDrumRatio?: number): SweepDrive {
  const drive = driveOf(recording, dyno, engineToDrumRatio);
  return sweepDrive(drive, dyno, findSweep(drive));
}
