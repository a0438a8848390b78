import type { LoggedEngine } from '../../log/pull/run-log.ts';
import type { JobRecord, RunRecord } from '../request/job-record.ts';

/** What is known of the engine when a run's log is judged: the car's file, the fuel of that run, the job's limits. */
export function engineOfRun(
  { ignition, boosted, fuelRegulation, limits }: Pick<JobRecord, 'ignition' | 'boosted' | 'fuelRegulation' | 'limits'>,
  { fuel }: Pick<RunRecord, 'fuel'>,
): LoggedEngine {
  return {
    ignition: ignition ?? null,
    boosted: boosted ?? false,
    fuelRegulation: fuelRegulation ?? null,
    ethanolPct: fuel?.ethanolPct ?? null,
    limits: Object.fromEntries((limits ?? []).map(({ quantity, value }) => [quantity, value])),
  };
}
