import type { Job, Run } from '../../contract/job/records.ts';
import { engineOfRun } from '../../core/figures/runs/engine-of-run.ts';
import { recordOfJob } from '../../core/figures/request/record-of-job.ts';
import { useLog } from '../workers/figures.ts';

/** A job's run with its log; nothing is fetched where there is no run. */
export function useRunLog(job: Job, run: Run | undefined) {
  return useLog(run, run && engineOfRun(recordOfJob(job), run));
}
