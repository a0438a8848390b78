import type { DynoProfile } from '../dyno/dyno-profile.ts';
import { Refusal } from '../refusal.ts';
import { valuesOf, type Recording } from '../recording/recording.ts';
import { preparedSweep } from '../reduction/prepared-sweep.ts';
import { burntFuel } from '../fuel/blend.ts';
import { medianOf } from '../numerics/quantile.ts';
import { roadSpeedChannel, speedChannels } from '../recording/channels.ts';
import type { FiguredKind } from '../recording/run-kind.ts';
import { coastDown } from './coast-down.ts';
import { coldStartFigures } from './cold-start.ts';
import { figuresOfKind } from './figures-of-kind.ts';
import { idleFigures } from './idle.ts';
import { isHeldStep } from './transient.ts';
import { steadyHolds, type SteadyHold } from './steady-holds.ts';

/** Kinds that a file is told apart as. */
export type FileKind = 'power' | 'step' | 'coast-down' | FiguredKind;

/** A pull has one steady part, before it opens; so many holds are a row of them. */
const leastHolds = 3;

/**
 * What a recording of a file is, by itself: a row of holds at steady speeds is
 * no power run, however much power it shows.
 * @throws Refusal where it is none of them, with what is wrong with it as a power run
 */
export function kindOfFile(recording: Recording, dyno: DynoProfile, engineToDrumRatio?: number): FileKind {
  if (isFromRoad(recording)) return 'road-check';
  const standing = drumStands(recording) ? standingKind(recording) : undefined;
  if (standing) return standing;
  if (isHeldStep(recording)) return 'transient';
  const holds = holdsIn(recording, dyno, engineToDrumRatio);
  if (holds.length >= leastHolds) return 'step';
  if (holds.length === 1 && holds[0]!.endS - holds[0]!.startS >= leastCruiseS && atPartLoad(recording)) return 'cruise';
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
  switch (kind) {
    case 'power':
      preparedSweep(recording, dyno, engineToDrumRatio);
      return;
    case 'step':
      steadyHolds(recording, dyno, engineToDrumRatio);
      return;
    case 'coast-down':
      coastDown(recording, dyno);
      return;
    default:
      figuresOfKind({ kind, recording, dyno, engineToDrumRatio, beside: [] }, anyFuel);
  }
}

/** Whether there are figures at all does not depend on the fuel. */
const anyFuel = burntFuel(null, null);
/** A drum that turns slower than this stands, rad/s. */
const standsRadS = 3;
/** A hold of this length at part load is a cruise, s, %. */
const leastCruiseS = 60;
const partThrottle = 70;

/** A road speed is logged, and no drum's. */
export function isFromRoad({ channels }: Recording): boolean {
  const names = channels.map(({ name }) => name);
  return names.includes(roadSpeedChannel) && !speedChannels.some((name) => names.includes(name));
}

function drumStands({ channels }: Recording): boolean {
  const speeds = channels.filter(
    ({ name }) => (speedChannels as readonly string[]).includes(name) && name !== 'surfaceSpeed',
  );
  return speeds.length > 0 && speeds.every(({ values }) => values.every((value) => !(Math.abs(value) > standsRadS)));
}

function atPartLoad(recording: Recording): boolean {
  const throttle = valuesOf(recording, 'throttle');
  return throttle !== undefined && medianOf(throttle) < partThrottle;
}

/** With the drum standing the engine is started or idles; undefined where neither is sure. */
function standingKind(own: Recording): 'idle' | 'cold-start' | undefined {
  const source = { own, beside: [] };
  for (const [kind, figures] of [
    ['cold-start', coldStartFigures],
    ['idle', idleFigures],
  ] as const) {
    try {
      figures(source);
      return kind;
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
    }
  }
  return undefined;
}

function holdsIn(recording: Recording, dyno: DynoProfile, engineToDrumRatio: number | undefined): SteadyHold[] {
  try {
    return steadyHolds(recording, dyno, engineToDrumRatio);
  } catch (error) {
    if (error instanceof Refusal) return [];
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
