import { isBoosted, isTurbocharged } from '../../job/is-boosted.ts';
import { knownLimits } from '../../limits/limit.ts';
import type { FuelRegulation } from '../../log/pull/run-log.ts';
import type { Target } from '../../targets/target.ts';
import type { JobRecord, RunRecord, SetupRecord } from './job-record.ts';

/** A setup as it is stored. */
type StoredSetup = Omit<SetupRecord, 'plan'> & { plannedRuns: number | null };

/** A job as it is stored, as far as figures need it. */
export interface StoredJob<Run extends RunRecord = RunRecord> extends Pick<JobRecord, 'vehicle' | 'baseline'> {
  car: {
    ignition: JobRecord['ignition'];
    induction: string | null;
    fuelRegulation: FuelRegulation | null;
    displacementL?: number | null | undefined;
    tyres: string;
  };
  setups: readonly StoredSetup[];
  runs: readonly Run[];
  limits: Parameters<typeof knownLimits>[0];
  bands: readonly { fromRpm: number; toRpm: number }[];
  targets: readonly Target[];
  wantedPercent: number | null;
}

/** A stored job as figures are asked of it; its runs stay as they are stored. */
export function recordOfJob<Run extends RunRecord>({
  vehicle,
  car,
  setups,
  runs,
  baseline,
  limits,
  bands,
  targets,
  wantedPercent,
}: StoredJob<Run>): Omit<JobRecord, 'runs'> & { runs: readonly Run[] } {
  return {
    vehicle,
    ignition: car.ignition,
    boosted: isBoosted(car),
    turbocharged: isTurbocharged(car),
    fuelRegulation: car.fuelRegulation,
    displacementL: car.displacementL,
    tyres: car.tyres,
    setups: withPlans(setups),
    runs,
    baseline,
    limits: knownLimits(limits),
    bands,
    targets,
    wantedShare: wantedPercent === null ? undefined : wantedPercent / 100,
  };
}

/** Setups with their plans as figures take them; the same list for the same setups, so that nothing is made anew. */
const planned = new WeakMap<readonly StoredSetup[], SetupRecord[]>();

function withPlans(setups: readonly StoredSetup[]): SetupRecord[] {
  const known =
    planned.get(setups) ??
    setups.map((setup) => ({ ...setup, plan: setup.plannedRuns ? { runs: setup.plannedRuns } : null }));
  planned.set(setups, known);
  return known;
}
