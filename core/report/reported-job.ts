import type { Charge } from '../charges/charges.ts';
import { putBackItems } from '../inspection/inspection-items.ts';
import type { FrozenBaseline } from '../job/baseline.ts';
import type { RunRecord, SetupRecord } from '../figures/request/job-record.ts';
import type { FuelState } from '../fuel/ledger.ts';
import type { JobFigures } from '../figures/job-figures.ts';
import type { Target } from '../targets/target.ts';
import type { SetupItem } from '../setup/item.ts';
import type { PowerUnit } from '../units/units.ts';
import type { StandardId } from '../air/correction.ts';

/** A run as far as a report tells of it. */
export interface ReportedRun extends RunRecord {
  endedAt?: string | null;
  fuel: FuelState | null;
}

/** A setup as far as a report tells of it. */
export interface ReportedSetup extends SetupRecord {
  parentId: number | null;
  change: string;
  items: readonly SetupItem[];
  decision: 'keep' | 'go back' | 'try further' | null;
}

/** What is written of a job, as far as a report tells it. */
export interface ReportedJob {
  id: number;
  vehicle: string;
  plate: string;
  owner: string;
  question: string;
  /** What nobody tried, in the operator's words. */
  untested: string;
  /** What somebody says that it makes. */
  claimedValue: number | null;
  claimedUnit: PowerUnit;
  claimedScale: 'crank' | 'wheels' | null;
  claimedSource: string;
  /** What is written of the car, as far as the road asks for it. */
  car: {
    induction: string | null;
    tyres: string;
    finalDrive: number | null;
    gears: readonly { gear: string; ratio: number }[];
    massKg: number | null;
    dragAreaM2: number | null;
    rollingCoefficient: number | null;
    factoryKw: number | null;
  };
  setups: readonly ReportedSetup[];
  runs: readonly ReportedRun[];
  baseline: FrozenBaseline | null;
  deliveredSetupId: number | null;
  bestRunId: number | null;
  bands: readonly { name: string; fromRpm: number; toRpm: number }[];
  targets: readonly Target[];
  /** Pictures of plugs, gauges, damage. */
  photos: readonly { id: number; caption: string }[];
  tuneFiles: readonly { setupId: number; name: string; sha256: string }[];
  /** What must be put back before the car leaves, and whether it was. */
  putBack: readonly { text: string; done: boolean }[];
  /** What it comes to, line by line. */
  charges: readonly Charge[];
}

/** What a report is composed from. */
export interface ReportSource {
  job: ReportedJob;
  /** Of what is delivered against what arrived, with the steps between. */
  figures: JobFigures;
  /** How they were made. */
  view: { standard: StandardId; share: number; auto: boolean };
}

/** What is written of a job as a report tells it: with what must be put back, ticked or not. */
export function reportedJob<Job extends Omit<ReportedJob, 'putBack'> & Parameters<typeof putBackItems>[0]>(
  job: Job,
): Job & ReportedJob {
  return { ...job, putBack: putBackItems(job) };
}

/** What the car is called as it leaves: nobody may have said yet that it does so. */
export const laterName = ({ deliveredSetupId }: Pick<ReportedJob, 'deliveredSetupId'>): string =>
  deliveredSetupId === null ? 'last setup' : 'delivered';
