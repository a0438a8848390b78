import { useMemo } from 'react';
import type { Job, Run, Setup } from '../../../../contract/job/records.ts';
import type { FuellingOfRuns } from '../../../../core/fuelling/fuelling-of-runs.ts';
import { fuelledRuns } from '../../../../core/fuelling/fuelled-runs.ts';
import { axesOf, settingsOf } from '../../../../core/fuelling/layout.ts';
import { useFuelling } from '../../../workers/figures.ts';
import type { LabelledRun } from '../view/beside.ts';

/** A state of the table with the runs that tell of it. */
export interface FuellingRevision {
  setup: Setup;
  runs: readonly Run[];
  /** undefined while it is being made. */
  found: FuellingOfRuns | undefined;
}

/** So many revisions are made beside the one that is looked at, the latest first. */
const mostBeside = 5;

/**
 * The fuelling errors of the setup that is looked at, and of the others that
 * have runs at part load, all over the same axes. A setup without such runs is
 * looked at in the run that was chosen.
 */
export function useFuellingOfJob(
  job: Job,
  run: LabelledRun,
  setup: Setup,
): { shown: FuellingRevision; others: FuellingRevision[] } {
  const { fuelling } = job.car;
  const lists = useMemo(() => {
    const own = fuelledRuns(job.runs, setup.id);
    const others = job.setups
      .filter(({ id }) => id !== setup.id)
      .map((other) => ({ setup: other, runs: fuelledRuns(job.runs, other.id) }))
      .filter(({ runs }) => runs.length > 0)
      .slice(-mostBeside);
    return { own: own.length > 0 ? own : [run], others };
  }, [job, run, setup]);
  const settings = useMemo(() => settingsOf(fuelling), [fuelling]);
  const [found] = useFuelling([lists.own], axesOf(fuelling, lists.own), settings);
  // Laid out by the one that is looked at, where nobody laid a table out.
  const axes = found?.axes ?? null;
  const beside = useFuelling(axes ? lists.others.map(({ runs }) => runs) : [], axes, settings);
  return {
    shown: { setup, runs: lists.own, found },
    others: lists.others.map((list, at) => ({ ...list, found: beside[at] })),
  };
}
