import type { Job, Run } from '../../contract/records.ts';
import { engineOfRun } from '../../core/figures/engine-of-run.ts';
import { recordOf, useLog } from '../workers/figures.ts';

/** A job's run with its log; nothing is fetched where there is no run. */
export function useRunLog(job: Job, run: Run | undefined) {
  return useLog(run, run && engineOfRun(recordOf(job), run));
}
