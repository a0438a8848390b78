import type { Job } from '../../contract/records.ts';
import { inspectionList, type InspectionItem } from '../../core/job/inspection-lists.ts';
import { fuelNow } from '../../core/fuel/fuel-now.ts';
import { isBoosted } from '../../core/job/is-boosted.ts';

/** The list of this job: what is on it follows dyno, engine and fuel. */
export function itemsOf(job: Job): InspectionItem[] {
  return inspectionList({
    dyno: job.dynoKind ?? job.runs.at(-1)?.dyno.kind ?? null,
    ignition: job.car.ignition,
    boosted: isBoosted(job.car),
    alcohol: (fuelNow(job)?.ethanolPct ?? 0) >= 50 || /methanol/i.test(fuelNow(job)?.name ?? ''),
  });
}
