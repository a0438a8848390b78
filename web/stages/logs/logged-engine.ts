import type { Job, Run } from '../../../contract/records.ts';
import type { LoggedEngine } from '../../../core/log/run-log.ts';

/** What is known of the engine when a run's log is judged: the car's file, the fuel of that run, the job's limits. */
export function loggedEngine(job: Job, run: Run): LoggedEngine {
  const { ignition, induction } = job.car;
  return {
    ignition,
    boosted: induction !== null && induction !== 'none',
    ethanolPct: run.fuel?.ethanolPct ?? null,
    limits: Object.fromEntries(job.limits.map(({ quantity, value }) => [quantity, value])),
  };
}
