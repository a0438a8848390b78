import { askedFigure, curveNamed } from '../../curve/asked-figure.ts';
import { wheelRange } from '../../dyno/usual-loss.ts';
import type { DynoKind } from '../../dyno/dyno-profile.ts';
import { meanOf } from '../../numerics/mean.ts';
import { standardDeviationOf } from '../../statistics/mean-difference.ts';
import { halfWidthOfMean, spreadOfRepeats } from '../../statistics/mean-interval.ts';
import type { SpreadPrior } from '../../statistics/spread-prior.ts';
import { targetStanding, type Target, type TargetFigures, type TargetOfSetup } from '../../targets/target.ts';
import { runCurve, type CountedRun } from './figured-run.ts';

/**
 * Where the setups of a job stand against its targets.
 * @param shown the scale of the runs' curves
 */
export function targetsOfJob(
  targets: readonly Target[],
  setups: readonly { setupId: number; runs: readonly CountedRun[] }[],
  { spread, shown, kind }: { spread: SpreadPrior; shown: 'wheels' | 'crank'; kind: DynoKind | undefined },
): TargetFigures[] {
  return targets.map((target) => {
    const here = readsHere(target, shown, kind);
    const valuesOf = setups.map(({ runs }) => runs.flatMap((run) => askedFigure(target, curveFor(target, run)) ?? []));
    // The usual spread is that of power, and of torque with it; of boost nobody has learned one.
    const prior = curveNamed(target.quantity) === 'boost' ? undefined : spread;
    return {
      id: target.id,
      here,
      setups: setups.flatMap(({ setupId, runs }, index) => {
        const values = valuesOf[index]!;
        const others = valuesOf.filter((theirs) => theirs !== values);
        return runs.length > 0 ? [{ setupId, ...standingOf(values, others, here, prior) }] : [];
      }),
    };
  });
}

/** What a target reads on the scale that is shown; a crank's figure by the usual losses where curves are the wheels'. */
function readsHere(
  { value, scale }: Target,
  shown: 'wheels' | 'crank',
  kind: DynoKind | undefined,
): TargetFigures['here'] {
  if (scale === null || scale === shown) return [value, value];
  return shown === 'crank' || kind === undefined || kind === 'road' ? undefined : wheelRange(value, kind);
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

/** A run's curve that the target is read from. */
function curveFor(
  { quantity }: Pick<Target, 'quantity'>,
  run: CountedRun,
): { engineSpeedRpm: Float64Array; values: Float64Array } | undefined {
  const curve = curveNamed(quantity);
  if (curve === 'boost') return run.run.logged?.means.get('boost');
  return runCurve(run, curve === 'power' ? 'powerKw' : 'torqueNm');
}
