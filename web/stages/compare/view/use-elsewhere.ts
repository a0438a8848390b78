import { useMemo } from 'react';
import type { BorrowedCurve } from '../../../../contract/job/job-file.ts';
import type { Job, Setup } from '../../../../contract/job/records.ts';
import { ranSetups } from '../../../../core/job/counted.ts';
import { useJob } from '../../../state/queries.ts';
import type { WorkerRequest } from '../../../workers/figures.worker.ts';
import type { CompareView } from './view-address.ts';
import { isBoosted, isTurbocharged } from '../../../../core/job/is-boosted.ts';

/** What a setup is compared with when that is not one of this job's setups. */
export interface FromElsewhere {
  /** The view with the other side put in the place of this job's. */
  view: CompareView;
  /** The other job and its setup, for the worker; or the borrowed curve. */
  guest?: NonNullable<WorkerRequest['guest']>;
  /** The other job as it is stored. */
  guestJob?: Job;
  borrowed?: BorrowedCurve;
  /** It is still being fetched. */
  pending: boolean;
  /** Why there is no such thing, as a sentence. */
  problem?: string;
}

/** Fetches what the address names beside this job: `11.B` is setup B of job 11, `curve-3` a borrowed curve. */
export function useElsewhere(job: Job, view: CompareView): FromElsewhere {
  const curveId = /^curve-(\d+)$/.exec(view.from ?? '')?.[1];
  const { jobId, letter } = guestNamed(view);
  const { data: other, error } = useJob(jobId ?? 0, jobId !== undefined);
  return useMemo(() => {
    if (curveId) {
      const borrowed = job.borrowedCurves.find(({ id }) => id === Number(curveId));
      if (!borrowed)
        return { view, pending: false, problem: 'The borrowed curve in the address is not in this job any more.' };
      const against = standIn(job, borrowed.name);
      return {
        view: { ...view, against, againstRuns: undefined, elsewhere: { name: borrowed.name } },
        borrowed,
        pending: false,
      };
    }
    if (jobId === undefined) return { view, pending: false };
    if (error) return { view, pending: false, problem: `Job ${jobId} cannot be laid beside: ${error.message}` };
    if (!other) return { view, pending: true };
    const setup = guestSetup(other, letter);
    if (!setup)
      return {
        view,
        pending: false,
        problem: `Job ${jobId} has no ${letter ? `setup ${letter}` : 'setup'} with a run.`,
      };
    const name = `${setup.letter} of job ${other.id}`;
    return {
      view: { ...view, against: { ...setup, letter: name }, againstRuns: undefined, elsewhere: { name } },
      guest: guestOf(other, setup, name),
      guestJob: other,
      pending: false,
    };
  }, [job, view, curveId, jobId, letter, other, error]);
}

/** The job and the setup in it that the address names. */
export function guestNamed({ from }: Pick<CompareView, 'from'>): { jobId?: number; letter?: string | undefined } {
  const [, id, letter] = /^(\d+)(?:\.([A-Z]+))?$/.exec(from ?? '') ?? [];
  return id === undefined ? {} : { jobId: Number(id), letter };
}

/** The setup named, or the one that a visit is best known by: its baseline, else its first with a run. */
export function guestSetup(other: Job, letter: string | undefined): Setup | undefined {
  const ran = guestSetups(other);
  if (letter !== undefined) return ran.find((setup) => setup.letter === letter);
  return ran.find((setup) => setup.id === other.baseline?.setupId) ?? ran[0];
}

/** The setups of another job that can be laid beside: those with a run that has ended. */
export function guestSetups({ setups, runs }: Job): Setup[] {
  return ranSetups(
    setups,
    runs.filter((run) => run.state !== 'recording'),
  );
}

function guestOf(other: Job, setup: Setup, name: string): NonNullable<WorkerRequest['guest']> {
  const runs = other.runs.filter((run) => run.setupId === setup.id && run.state !== 'recording');
  const day = new Date(runs[runs.length - 1]!.startedAt).toLocaleDateString('en-GB', { dateStyle: 'medium' });
  return {
    setup: { id: setup.id, letter: name, parentId: null, change: setup.change, items: setup.items },
    // Both jobs have an A1: a guest's says whose it is, wherever it is named.
    runs: runs.map((run) => ({ ...run, label: `${run.label} of job ${other.id}` })),
    baseline: other.baseline,
    ignition: other.car.ignition,
    boosted: isBoosted(other.car),
    turbocharged: isTurbocharged(other.car),
    fuelRegulation: other.car.fuelRegulation,
    displacementL: other.car.displacementL,
    tyres: other.car.tyres,
    vehicle: other.vehicle,
    origin: `setup ${name}, ${setup.change}, ${day}`,
  };
}

/** What lanes and table ask of a setup, for a borrowed curve, which is none. */
function standIn(job: Job, letter: string): Setup {
  return { ...job.setups[0]!, id: 0, jobId: 0, letter, parentId: null, change: '', items: [] };
}
