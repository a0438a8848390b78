import { fuelAfter, type FuelEntry, type FuelState } from './ledger.ts';

/** What a job's fuel ledger says of the tank now; undefined where nothing is written down. @param entries their times as text */
export function fuelNow({
  fuelEntries,
}: {
  fuelEntries: readonly (Omit<FuelEntry, 'at'> & { at: string })[];
}): FuelState | undefined {
  if (fuelEntries.length === 0) return undefined;
  return fuelAfter(fuelEntries.map((entry) => ({ ...entry, at: new Date(entry.at) })));
}
