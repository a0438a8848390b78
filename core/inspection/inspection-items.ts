import { lastOnDyno } from '../job/last-on-dyno.ts';
import type { DynoKind } from '../dyno/dyno-profile.ts';
import { fuelNow } from '../fuel/ledger.ts';
import { inspectionList, type InspectionFacts, type InspectionItem } from './inspection-lists.ts';
import { isBoosted } from '../job/is-boosted.ts';

/** What a job's inspection list follows: its dyno, engine and fuel. */
type InspectedJob = Parameters<typeof fuelNow>[0] & {
  dynoKind: DynoKind | null;
  runs: readonly { dyno: { kind: DynoKind } }[];
  car: { ignition: InspectionFacts['ignition']; induction: string | null };
};

/** What is looked at before the first run of a job, and put back before the car leaves. */
export function inspectionItems(job: InspectedJob): InspectionItem[] {
  const fuel = fuelNow(job);
  return inspectionList({
    dyno: job.dynoKind ?? lastOnDyno(job.runs)?.dyno.kind ?? null,
    ignition: job.car.ignition,
    boosted: isBoosted(job.car),
    alcohol: (fuel?.ethanolPct ?? 0) >= 50 || /methanol/i.test(fuel?.name ?? ''),
  });
}

type PutBackJob = Parameters<typeof inspectionItems>[0] & {
  inspections: readonly { key: string; outcome: string }[];
};

/** What must be put back before the car leaves, and whether somebody ticked that it was. */
export function putBackItems(job: PutBackJob): { key: string; text: string; done: boolean }[] {
  const isTicked = (key: string) => job.inspections.some((entry) => entry.key === key && entry.outcome === 'ok');
  return inspectionItems(job)
    .filter(({ part }) => part === 'put back')
    .map(({ key, text }) => ({ key, text, done: isTicked(key) }));
}
