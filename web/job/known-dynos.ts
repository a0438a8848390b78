import type { DynoFile } from '../../contract/files/machine-and-air.ts';
import type { Job } from '../../contract/job/records.ts';
import { useLive } from '../state/live.ts';

export interface KnownDyno {
  value: string;
  label: string;
  dyno: DynoFile;
}

export const dynoText = (dyno: DynoFile): string =>
  dyno.kind === 'road' ? 'on the road' : `${dyno.kind.replace('-', ' ')}, ${dyno.inertiaKgM2} kg·m²`;

/** The machines at hand: those that the job's runs were made on, and those in the bays. */
export function useKnownDynos(job: Job): KnownDyno[] {
  const bays = useLive((state) => state.bays);
  const found: KnownDyno[] = [];
  const add = (label: string, dyno: DynoFile) => {
    if (!found.some((candidate) => sameDyno(candidate.dyno, dyno)))
      found.push({ value: label, label: `${label} (${dynoText(dyno)})`, dyno });
  };
  for (const run of [...job.runs].reverse()) if (run.dyno.kind !== 'road') add(`As for ${run.label}`, run.dyno);
  for (const { devices } of bays) for (const { name, dyno } of devices) if (dyno) add(name, dyno);
  return found;
}

export const sameDyno = (one: DynoFile, other: DynoFile): boolean => JSON.stringify(one) === JSON.stringify(other);
