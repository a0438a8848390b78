import type { Job, Run } from '../../../../contract/job/records.ts';
import { baselineRuns, baselineSetup } from '../../../../core/job/baseline.ts';
import { setupColour } from '../../../../core/scene/setup-look.ts';

export type LabelledRun = Run & { label: string };

/** What can be laid beside a run: one run by its label, or a setup by its letter for the mean of its runs. */
export interface Beside {
  label: string;
  runs: readonly Run[];
  colour: string;
}

/** Runs that have ended, in their order. */
export function endedRuns(job: Job): LabelledRun[] {
  return job.runs.filter((run): run is LabelledRun => run.state !== 'recording' && run.label !== null);
}

/** The runs that a setup's mean is made of. */
export function meanRuns(job: Job, setupId: number): Run[] {
  return baselineRuns(job.runs, setupId, job.baseline);
}

/**
 * What the names in an address stand for; without any, the last of the baseline's runs. A run is never laid beside
 * itself.
 */
export function besideOf(job: Job, run: Run, names: readonly string[] | undefined): Beside[] {
  const baseline = baselineSetup(job.setups, job.baseline);
  const colourOf = (setupId: number | null) => {
    const setup = job.setups.find(({ id }) => id === setupId);
    // A setup that the run itself belongs to has the same colour as the run: it is drawn grey, or the two lines could
    // not be told apart.
    return setup && setupId !== run.setupId ? setupColour(setup.letter, setup.id === baseline.id) : 'var(--soft)';
  };
  const usual = meanRuns(job, baseline.id)
    .filter(({ id }) => id !== run.id)
    .at(-1);
  const wanted = names ?? (usual?.label ? [usual.label] : []);
  return wanted.flatMap((name): Beside[] => {
    const one = endedRuns(job).find(({ label }) => label === name);
    if (one) return one.id === run.id ? [] : [{ label: name, runs: [one], colour: colourOf(one.setupId) }];
    const setup = job.setups.find(({ letter }) => letter === name);
    const runs = setup ? meanRuns(job, setup.id) : [];
    return setup && runs.length > 0 ? [{ label: name, runs, colour: colourOf(setup.id) }] : [];
  });
}
