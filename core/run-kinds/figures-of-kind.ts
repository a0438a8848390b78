import { sampleAt } from '../numerics/sample-at.ts';
import type { DynoProfile } from '../dyno/dyno-profile.ts';
import type { LoggerBeside } from '../log/view/logged-pull.ts';
import { withoutOffset } from './kind-source.ts';
import type { FiguredKind, RunKind } from '../recording/run-kind.ts';
import type { Recording } from '../recording/recording.ts';
import { driveOf } from '../reduction/drive.ts';
import { slopes } from '../smoothing/moving-fit.ts';
import { coldStartFigures } from './cold-start.ts';
import { cruiseFigures, type BurntFuel } from './cruise.ts';
import { holdFigures, type PlannedHolds } from './hold-figures.ts';
import { idleFigures } from './idle.ts';
import { roadCheckFigures } from './road-check.ts';
import type { RunFigures } from './run-figure.ts';
import { transientFigures } from './transient.ts';

/** A run that is no sweep, with what its figures are made of beside the fuel. */
export interface WholeRun {
  kind: RunKind;
  recording: Recording;
  dyno: DynoProfile;
  engineToDrumRatio: number | undefined;
  beside: readonly LoggerBeside[];
  /** Holds that were planned; undefined where none were named. */
  planned?: PlannedHolds | undefined;
}

export const figuredKinds: readonly FiguredKind[] = ['idle', 'cold-start', 'transient', 'cruise', 'road-check'];

/** Kinds that are laid side by side, setup by setup, outside of the power figures. */
export const comparedKinds = ['step', ...figuredKinds] as const;
export type ComparedKind = (typeof comparedKinds)[number];
export const isCompared = (kind: RunKind): kind is ComparedKind => (comparedKinds as readonly RunKind[]).includes(kind);

/** Wheel power is looked at over this time at a cruise, s. */
const cruiseSpanS = 1;

/** The figures of a run of its kind. @throws Refusal where it does not hold what they are made of */
export function figuresOfKind(
  { kind, recording, dyno, engineToDrumRatio, beside, planned }: WholeRun,
  fuel: BurntFuel,
): RunFigures {
  const source = {
    own: recording,
    beside: beside.map(({ recording: logged, probe }) => withoutOffset(logged, probe.offset)),
  };
  switch (kind) {
    case 'idle':
      return idleFigures(source);
    case 'cold-start':
      return coldStartFigures(source);
    case 'transient': {
      const { time, impulse } = driveOf(recording, dyno, engineToDrumRatio);
      return transientFigures(source, { time, impulse });
    }
    case 'cruise': {
      const { time, impulse, speed } = driveOf(recording, dyno, engineToDrumRatio);
      const torque = slopes(time, impulse, cruiseSpanS).slope;
      const { radiusM } = dyno;
      const wheels = {
        time,
        powerKw: torque.map((nm, at) => (nm * sampleAt(speed, at)) / 1000),
        roadKmh: radiusM === undefined ? undefined : speed.map((radS) => radS * radiusM * 3.6),
      };
      return cruiseFigures(source, wheels, fuel);
    }
    case 'road-check':
      return roadCheckFigures(source);
    default:
      return holdFigures(recording, dyno, engineToDrumRatio, beside, planned);
  }
}
