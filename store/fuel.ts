import { fuelAfter, type FuelState } from '../core/fuel/ledger.ts';
import type { Queryable } from './database.ts';
import { entriesOf } from './entries.ts';

/** What a job's ledger says of the tank at a moment; null where nothing is written down. */
export async function fuelAt(database: Queryable, jobId: number, at: Date): Promise<FuelState | null> {
  const entries = (await entriesOf(database, 'fuelEntries', jobId))
    .map((entry) => ({ ...entry, at: new Date(entry.at) }))
    .filter((entry) => entry.at <= at);
  return entries.length > 0 ? fuelAfter(entries) : null;
}
