import type { Job, Run } from '../../contract/records.ts';
import type { LoggedEngine } from '../../core/log/run-log.ts';
import { useLog } from '../workers/figures.ts';

/** What is known of the engine when a run's log is judged: the car's file, the fuel of that run, the job's limits. */
function loggedEngine(job: Job, run: Run): LoggedEngine {
  const { ignition, induction } = job.car;
  return {
    ignition,
    boosted: induction !== null && induction !== 'none',
    ethanolPct: run.fuel?.ethanolPct ?? null,
    limits: Object.fromEntries(job.limits.map(({ quantity, value }) => [quantity, value])),
  };
}

/** A job's run with its log; nothing is fetched where there is no run. */
export function useRunLog(job: Job, run: Run | undefined) {
  return useLog(run, run && loggedEngine(job, run));
}
