import { motionChecks } from '../core/checks/motion-checks.ts';
import { preparedSweep } from '../core/reduction/prepared-sweep.ts';
import { allFamilies, healthyRun } from '../core/testing/families.ts';
import { otherEngine, otherEngines } from '../core/testing/other-engines.ts';
import { faultKinds, faultyRuns } from '../core/testing/faulty-runs.ts';
import { generatedRun } from '../core/testing/generated-run.ts';
import type { Figure } from './figure.ts';
import type { GeneratedRun } from '../core/testing/pull-options.ts';

const healthySeeds = Array.from({ length: 75 }, (_, index) => 1001 + index);
const otherSeeds = Array.from({ length: 170 }, (_, index) => 3001 + index);
const faultySeeds = Array.from({ length: 8 }, (_, index) => 2001 + index);

/** The checks found on a run; those of one that no curve can be made of count as none. */
function idsOn(spec: GeneratedRun): string[] {
  try {
    return motionChecks(preparedSweep(generatedRun(spec), spec.dyno!, spec.ratio ?? 3.4)).map(({ id }) => id);
  } catch {
    return [];
  }
}

/** False alarms on healthy pulls and hits on faulty ones, each check by itself. */
export function checkRates(): Figure[] {
  const healthy = allFamilies.flatMap((family) => healthySeeds.map((seed) => idsOn(healthyRun(family, seed))));
  const ids = [...new Set(faultKinds.map(({ check }) => check))];
  const share = (count: number, of: number) => (100 * count) / of;
  const others = otherEngines.map((kind) => ({
    kind,
    found: otherSeeds.map((seed) => idsOn(otherEngine(kind, seed))),
  }));
  const limps = others.reduce((sum, { found }) => sum + found.filter((on) => on.includes('limp')).length, 0);
  return [
    {
      name: `limp: false alarms on ${others.length * otherSeeds.length} healthy pulls of other engines, 20 to 300 rpm/s`,
      value: share(limps, others.length * otherSeeds.length),
      unit: `% (${others.map(({ kind, found }) => `${kind} ${found.filter((on) => on.includes('limp')).length}`).join(', ')})`,
      budget: 0.2,
    },
    ...others.map(({ kind, found }) => ({
      name: `${kind}: pulls with any finding`,
      value: share(found.filter((on) => on.length > 0).length, found.length),
      unit: `% (${[...new Set(found.flat())].map((id) => `${id} ${found.filter((on) => on.includes(id)).length}`).join(', ')})`,
    })),
    ...ids.map((id) => ({
      name: `${id}: false alarms on ${healthy.length} healthy pulls`,
      value: share(healthy.filter((found) => found.includes(id)).length, healthy.length),
      unit: '%',
      budget: 1,
    })),
    ...faultKinds.flatMap((kind) =>
      [1, 0.5].map((size) => {
        const found = [...faultyRuns(kind, faultySeeds, { size, of: allFamilies })].map(({ spec }) => idsOn(spec));
        return {
          name: `${kind.check}: hits, ${kind.name}${size === 1 ? '' : ', half the size'}, ${found.length} pulls`,
          value: share(found.filter((ids) => ids.includes(kind.check)).length, found.length),
          unit: '%',
        };
      }),
    ),
  ];
}
