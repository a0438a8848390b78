import { sampleAt } from '../../numerics/sample-at.ts';
import type { Air } from '../../air/air.ts';
import type { BrokenLimit } from '../../limits/broken-limits.ts';
import type { LoggedPull } from '../../log/view/logged-pull.ts';
import type { LoggedEngine } from '../../log/pull/run-log.ts';
import type { RunFinding } from '../../judgement/run-findings.ts';
import type { AirCircumstances } from '../../checks/air-checks.ts';
import type { RunConditions } from '../../likeness/run-conditions.ts';
import type { RawPoints } from '../../reduction/raw-points.ts';
import { meanOf } from '../../numerics/mean.ts';
import type { Curve } from './corrected-curve.ts';
import type { SweepDrive } from '../../reduction/sweep-drive.ts';
import type { RunCurve } from '../../comparison/run-curve.ts';
import type { Unusable } from './unusable.ts';

/** A run of a job with its sweep made ready. */
export interface FiguredRun {
  id: number;
  setupId: number;
  /** In figures: a power run that is not set aside. */
  counted: boolean;
  /** Which state the car was in, by the first setup that had it. */
  state?: number | undefined;
  /** Which run of its job it was, by time, those in no figure counted, too: each of them heats the car. */
  place?: number | undefined;
  sweep: SweepDrive;
  air: Air | undefined;
  circumstances?: AirCircumstances;
  conditions: RunConditions;
  /** What its channels showed in the pull, and of which engine with which limits. */
  logged?: LoggedPull | undefined;
  engine: LoggedEngine;
}

/** A run's curve at the settings of a view. */
export interface RunFigures {
  id: number;
  setupId: number;
  label: string;
  counted: boolean;
  curve: Curve;
  /** Limits that it went beyond, as far as its own log and curve tell. */
  broken: BrokenLimit[];
  /** All that was found on it, the gravest first; made for the setups that are looked at. */
  found?: RunFinding[];
  /** Unsmoothed points, corrected, where they were asked for. */
  raw?: RawPoints;
}

/** A run that is in no figure, and the sentence that says why. */
export interface UnusableRun extends Unusable {
  id: number;
  label: string;
}

/** A counted run of a setup with its curve. */
export interface CountedRun {
  run: FiguredRun;
  figures: RunFigures;
}

export type Quantity = 'powerKw' | 'torqueNm' | 'timeS';

export function runCurve({ run, figures }: CountedRun, quantity: Quantity): RunCurve {
  return {
    engineSpeedRpm: figures.curve.engineSpeedRpm,
    values: figures.curve[quantity],
    atMs: run.conditions.startedAt?.getTime(),
    remounted: run.conditions.remounted,
    bay: run.conditions.bay,
    state: run.state,
    place: run.place,
  };
}

/** Checks that find the reading not the engine's over a stretch. */
const slipIds: readonly string[] = ['tyre-slip', 'hop'];

/** A run's conditions with what its own recording shows: ratio, ramp and range. */
export function measuredConditions({ run, figures }: CountedRun): RunConditions {
  const { startS, endS, startRpm, endRpm } = figures.curve.sweep;
  const { ratio } = run.sweep.drive;
  const speeds = figures.curve.engineSpeedRpm;
  const { engine } = figures.curve.correction;
  const learned = run.logged?.means.get('learnedOctane');
  return {
    ratio: ratio[(run.sweep.first + run.sweep.last) >> 1],
    rampRpmPerS: (endRpm - startRpm) / (endS - startS),
    fromRpm: sampleAt(speeds, 0),
    toRpm: sampleAt(speeds, speeds.length - 1),
    slips: figures.curve.checks.flatMap(({ id, zones = [] }) =>
      slipIds.includes(id) ? zones.map(({ fromRpm, toRpm, figure: percent }) => ({ fromRpm, toRpm, percent })) : [],
    ),
    ...(learned ? { learnedOctanePct: meanOf(learned.values) } : {}),
    ...(engine && { byLoggedFuel: engine.correctedFuelMgPerLitreCycle !== undefined }),
    ...run.conditions,
  };
}
