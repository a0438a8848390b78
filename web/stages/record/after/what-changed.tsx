import type { Job, Setup } from '../../../../contract/job/records.ts';
import { countedRuns } from '../../../../core/job/counted.ts';
import { NewSetup } from '../../../setups/new-setup.tsx';
import { useLive } from '../../../state/live.ts';
import classes from './run-result.module.css';

/** When the planned runs of a setup are done: what comes next is asked at once, so that no note is forgotten. */
export function WhatChanged({ job, setup, onAdded }: { job: Job; setup: Setup; onAdded: (setup: Setup) => void }) {
  const repeats = useLive((state) => state.bay?.plan.repeats);
  const counted = countedRuns(job.runs, setup.id);
  if (repeats === undefined || counted.length < repeats) return null;
  return (
    <section className={classes.next}>
      <h3 className="heading">
        {counted.length === 1 ? 'The planned run' : `All ${counted.length} planned runs`} of {setup.letter} done
      </h3>
      <NewSetup job={job} parent={setup} hotkey={false} asked onAdded={onAdded} />
    </section>
  );
}
