import { useMemo } from 'react';
import type { Job, Run } from '../../contract/records.ts';
import { runsOfOwnKinds, type KindRunOfJob } from '../../core/figures/kinds-of-job.ts';
import { burntFuel } from '../../core/fuel/blend.ts';
import { useKindOutcomes } from '../workers/figures.ts';

/** What a run burnt, as far as the job knows it. */
export const fuelOfRun = ({ car }: Pick<Job, 'car'>, { fuel }: Pick<Run, 'fuel'>) => burntFuel(car.ignition, fuel?.ethanolPct ?? null); // prettier-ignore

/** A job's runs of kinds of their own with their figures; undefined while some are still being made. */
export function useKindRuns(job: Job): KindRunOfJob[] | undefined {
  const runs = useMemo(() => runsOfOwnKinds(job.runs), [job.runs]);
  const outcomes = useKindOutcomes(runs.map((run) => [run, fuelOfRun(job, run)] as const));
  if (outcomes.some((outcome) => outcome === undefined)) return undefined;
  return runs.map((run, at) => ({ ...run, ...outcomes[at] }));
}
