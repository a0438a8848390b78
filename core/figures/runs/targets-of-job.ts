import { askedFigure, curveNamed } from '../../curve/asked-figure.ts';
import { wheelRange } from '../../dyno/usual-loss.ts';
import type { DynoKind } from '../../dyno/dyno-profile.ts';
import { spreadAtOneSpeed } from '../../comparison/surroundings.ts';
import { meanOf } from '../../numerics/mean.ts';
import { standardDeviationOf } from '../../statistics/mean-difference.ts';
import { halfWidthOfMean, spreadOfRepeats } from '../../statistics/mean-interval.ts';
import type { SpreadPrior } from '../../statistics/spread-prior.ts';
import { targetStanding, type Target, type TargetFigures, type TargetOfSetup } from '../../targets/target.ts';
import { curveUnder, type CurveSettings } from './corrected-curve.ts';
import type { CountedRun } from './figured-run.ts';

/**
 * Where the setups of a job stand against its targets. A target's figure is made under its own standard and,
 * for the wheels, at the wheels, whatever the curves show: a press on another standard reaches nothing.
 * @param settings of the runs' curves; a target that names no standard has theirs
 */
export function targetsOfJob(
  targets: readonly Target[],
  setups: readonly { setupId: number; runs: readonly CountedRun[] }[],
  { spread, settings, kind }: { spread: SpreadPrior; settings: CurveSettings; kind: DynoKind | undefined },
): TargetFigures[] {
  return targets.map((target) => {
    const under = settingsFor(target, settings);
    const here = readsHere(target, under, kind);
    const curvesOf = setups.map(({ runs }) => runs.map((run) => curveFor(target, run, under)));
    const valuesOf = curvesOf.map((curves) =>
      curves.flatMap((curve) => (curve && curve !== 'no air' ? (askedFigure(target, curve) ?? []) : [])),
    );
    // The usual spread is that of power, and of torque with it; of boost nobody has learned one.
    const known = target.quantity.startsWith('mean') ? spread : spreadAtOneSpeed(spread);
    const prior = curveNamed(target.quantity) === 'boost' ? undefined : known;
    return {
      id: target.id,
      here,
      setups: setups.flatMap(({ setupId, runs }, index) => {
        const values = valuesOf[index]!;
        const others = valuesOf.filter((theirs) => theirs !== values);
        if (runs.length === 0) return [];
        if (curvesOf[index]!.every((curve) => curve === 'no air')) return [{ setupId, runs: 0, standing: 'no air' }];
        return [{ setupId, ...standingOf(values, others, here, prior) }];
      }),
    };
  });
}

/** What a target's figure is made with. */
function settingsFor({ scale, standard }: Target, shown: CurveSettings): CurveSettings {
  const crank = scale === 'wheels' ? undefined : shown.crank;
  // A share is a way to look; who asks for a figure under a standard asks for all of it.
  return standard === null ? { ...shown, crank } : { ...shown, crank, standard, share: 1 };
}

/** What a target reads where it is held: a crank's figure by the usual losses where curves are the wheels'. */
function readsHere(
  { value, scale }: Target,
  { crank }: CurveSettings,
  kind: DynoKind | undefined,
): TargetFigures['here'] {
  if (scale !== 'crank' || crank) return [value, value];
  return kind === undefined || kind === 'road' ? undefined : wheelRange(value, kind);
}

/** What the values of a setup make of a target. @param others values of the job's other setups: they tell of the spread */
function standingOf(
  values: readonly number[],
  others: readonly (readonly number[])[],
  here: TargetFigures['here'],
  prior: SpreadPrior | undefined,
): Omit<TargetOfSetup, 'setupId'> {
  if (values.length === 0) return { runs: 0, standing: 'not covered' };
  const repeats = { runs: values.length, mean: meanOf(values), standardDeviation: standardDeviationOf(values) };
  const halfWidth = halfWidthOfMean(repeats, prior, spreadOfRepeats(others));
  const standing = here ? targetStanding(here, repeats.mean, halfWidth) : 'open';
  return { runs: repeats.runs, made: repeats.mean, ...(halfWidth !== undefined && { halfWidth }), standing };
}

/** A run's curve that the target is read from; undefined where it was not recorded. */
function curveFor(
  { quantity, standard }: Target,
  { run, figures }: CountedRun,
  under: CurveSettings,
): { engineSpeedRpm: Float64Array; values: Float64Array } | 'no air' | undefined {
  const named = curveNamed(quantity);
  if (named === 'boost') return run.logged?.means.get('boost');
  // A target of old holds what is shown, a run without air among it.
  if (!run.air && standard !== null && standard !== 'none') return 'no air';
  const curve = curveUnder(figures.curve, run, under);
  return { engineSpeedRpm: curve.engineSpeedRpm, values: named === 'power' ? curve.powerKw : curve.torqueNm };
}
