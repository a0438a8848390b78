import type { DynoProfile } from '../dyno/dyno-profile.ts';
import { Refusal } from '../refusal.ts';
import type { Recording } from '../recording/recording.ts';
import { preparedSweep } from '../reduction/prepared-sweep.ts';
import { coastDown } from './coast-down.ts';
import { steadyHolds } from './steady-holds.ts';

/** Kinds that a file is told apart as. */
export type FileKind = 'power' | 'step' | 'coast-down';

/** A pull has one steady part, before it opens; so many holds are a row of them. */
const leastHolds = 3;

/**
 * What a recording of a file is, by itself: a row of holds at steady speeds is
 * no power run, however much power it shows.
 * @throws Refusal where it is none of them, with what is wrong with it as a power run
 */
export function kindOfFile(recording: Recording, dyno: DynoProfile, engineToDrumRatio?: number): FileKind {
  if (holdsIn(recording, dyno, engineToDrumRatio) >= leastHolds) return 'step';
  try {
    preparedSweep(recording, dyno, engineToDrumRatio);
    return 'power';
  } catch (error) {
    if (error instanceof Refusal && coasts(recording, dyno)) return 'coast-down';
    throw error;
  }
}

/** Looks whether a recording is what it is said to be. @throws Refusal with what is wrong with it */
export function mustBe(kind: FileKind, recording: Recording, dyno: DynoProfile, engineToDrumRatio?: number): void {
  if (kind === 'step') steadyHolds(recording, dyno, engineToDrumRatio);
  else if (kind === 'coast-down') coastDown(recording, dyno);
  else preparedSweep(recording, dyno, engineToDrumRatio);
}

function holdsIn(recording: Recording, dyno: DynoProfile, engineToDrumRatio: number | undefined): number {
  try {
    return steadyHolds(recording, dyno, engineToDrumRatio).length;
  } catch (error) {
    if (error instanceof Refusal) return 0;
    throw error;
  }
}

function coasts(recording: Recording, dyno: DynoProfile): boolean {
  try {
    return coastDown(recording, dyno) !== undefined;
  } catch (error) {
    if (error instanceof Refusal) return false;
    throw error;
  }
}
