import { sameStates } from './difference.ts';
import type { SetupItem } from './item.ts';
import { isCounted, type CountableRun } from '../job/counted.ts';

type PlacedRun = CountableRun & { startedAt: string };

interface PlacedSetup {
  id: number;
  parentId: number | null;
  items: readonly SetupItem[];
}

/** Whether an earlier setup was run again after a later one: by its own runs, or those of a setup that only went back to it. */
export function returnedTo(
  { setups, runs }: { setups: readonly PlacedSetup[]; runs: readonly PlacedRun[] },
  laterId: number,
  earlierId: number,
): boolean {
  const states = sameStates(setups);
  const same = setups.map(({ id }) => id).filter((id) => states.get(id) === states.get(earlierId));
  const counted = runs.filter(isCounted);
  const first = counted
    .filter(({ setupId }) => setupId === laterId)
    .reduce((least, { startedAt }) => Math.min(least, Date.parse(startedAt)), Infinity);
  return counted.some(
    ({ setupId, startedAt }) => setupId !== null && same.includes(setupId) && Date.parse(startedAt) > first,
  );
}
