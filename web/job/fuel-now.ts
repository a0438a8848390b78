import type { Job } from '../../contract/records.ts';
import { fuelAfter, type FuelState } from '../../core/fuel/ledger.ts';

/** What the job's fuel ledger says of the tank now; undefined where nothing is written down. */
export function fuelNow(job: Pick<Job, 'fuelEntries'>): FuelState | undefined {
  if (job.fuelEntries.length === 0) return undefined;
  return fuelAfter(job.fuelEntries.map((entry) => ({ ...entry, at: new Date(entry.at) })));
}
