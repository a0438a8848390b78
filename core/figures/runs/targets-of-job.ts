import { askedFigure, curveNamed } from '../../curve/asked-figure.ts';
import { wheelRange } from '../../dyno/usual-loss.ts';
import type { DynoKind } from '../../dyno/dyno-profile.ts';
import { meanOf } from '../../numerics/mean.ts';
import { pooledStandardDeviation, standardDeviationOf } from '../../statistics/mean-difference.ts';
import { halfWidthOfMean } from '../../statistics/mean-interval.ts';
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
    const othersOf = (setupId: number) => setups.filter((one) => one.setupId !== setupId).map(({ runs }) => runs);
    return {
      id: target.id,
      here,
      setups: setups.flatMap(({ setupId, runs }) =>
        runs.length > 0 ? [ofSetup(target, setupId, runs, here, spread, othersOf(setupId))] : [],
      ),
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

function ofSetup(
  target: Target,
  setupId: number,
  runs: readonly CountedRun[],
  here: TargetFigures['here'],
  spread: SpreadPrior,
  others: readonly (readonly CountedRun[])[],
): TargetOfSetup {
  const valuesOf = (of: readonly CountedRun[]) => of.flatMap((run) => askedFigure(target, curveFor(target, run)) ?? []);
  const values = valuesOf(runs);
  const alike = pooledStandardDeviation(
    others.map((of) => {
      const theirs = valuesOf(of);
      return theirs.map((value) => value / meanOf(theirs));
    }),
  );
  const [runsCovered, mean] = [values.length, values.length > 0 ? meanOf(values) : undefined];
  if (mean === undefined) return { setupId, runs: 0, standing: 'not covered' };
  // The usual spread is that of power, and of torque with it; of boost nobody has learned one.
  const prior = curveNamed(target.quantity) === 'boost' ? undefined : spread;
  const repeats = { runs: runsCovered, mean, standardDeviation: standardDeviationOf(values) };
  const halfWidth = halfWidthOfMean(repeats, prior, alike);
  const standing = here ? targetStanding(here, mean, halfWidth) : 'open';
  return { setupId, runs: runsCovered, made: mean, ...(halfWidth !== undefined && { halfWidth }), standing };
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
