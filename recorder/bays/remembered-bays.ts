import type { StoredBay } from '../../store/shop/bays.ts';
import { mostBays } from '../../contract/values/parts.ts';
import { Refusal } from '../../core/refusal.ts';
import { firstBay, type Remembered, type RememberedBay } from '../memory/recorder-memory.ts';

/** What a change makes of the bays that a recorder remembers; it is they that count, the database has a copy. */

type Bays = readonly RememberedBay[];

/** A bay that is not there yet, under a number of its own. */
export function oneMore(bays: Bays, name: string): RememberedBay {
  return { ...firstBay, bay: 1 + Math.max(...bays.map(({ bay }) => bay)), name };
}

/** With an empty bay more. @throws Refusal where there are enough, or one has the name */
export function withAdded(bays: Bays, name: string): RememberedBay[] {
  refuseName(bays, name);
  if (bays.length >= mostBays) throw new Refusal(`There are ${mostBays} bays: one recorder has no more.`);
  return [...bays, oneMore(bays, name)];
}

/** With one renamed. @throws Refusal where another bay has the name */
export function withRenamed(bays: Bays, number: number, name: string): RememberedBay[] {
  refuseName(bays, name, number);
  return bays.map((bay) => (bay.bay === number ? { ...bay, name } : bay));
}

function refuseName(bays: Bays, name: string, except?: number): void {
  const same = bays.find((bay) => bay.bay !== except && bay.name.toLowerCase() === name.toLowerCase());
  if (same) throw new Refusal(`There is a bay called ${same.name} already; give this one another name.`);
}

/** With a car on one dyno and on none of those that it was on before. */
export function withMounted(
  bays: Bays,
  number: number,
  mounted: RememberedBay['mounted'],
  before: ReadonlySet<number>,
): RememberedBay[] {
  return bays.map((one) =>
    one.bay === number ? { ...one, mounted } : before.has(one.bay) ? { ...one, mounted: null } : one,
  );
}

/** What a recorder that begins anew takes over from the database: its own word comes first. @param cars on the stored bays, in their order */
export function withStored(
  bays: Bays,
  stored: readonly StoredBay[],
  cars: readonly (Omit<NonNullable<RememberedBay['mounted']>, 'jobId' | 'setupId'> | null | undefined)[],
): RememberedBay[] {
  const all = new Map(bays.map((bay) => [bay.bay, bay]));
  stored.forEach(({ bay, name, mounted, plan }, at) => {
    const car = cars[at];
    const known = all.get(bay) ?? { ...firstBay, bay };
    all.set(bay, {
      ...known,
      name,
      mounted: known.mounted ?? (mounted && car ? { ...mounted, ...car } : null),
      plan: known.plan ?? plan,
    });
  });
  return [...all.values()].sort((one, other) => one.bay - other.bay);
}

/** What is still true in another database: numbers of cars and setups may be another customer's there. */
export function inOtherData({
  bays,
  settings,
}: Pick<Remembered, 'bays' | 'settings'>): Pick<Remembered, 'bays' | 'settings'> {
  const ofNoCar = Object.entries(settings).map(
    ([name, { ratio, ...own }]) => [name, { ...own, ratio: ratio && { ...ratio, vehicleId: null } }] as const,
  );
  return { bays: bays.map((bay) => ({ ...bay, mounted: null })), settings: Object.fromEntries(ofNoCar) };
}
