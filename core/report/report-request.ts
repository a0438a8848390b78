import type { StandardId } from '../air/correction.ts';
import type { FiguresRequest, FiguresView, Learned } from '../figures/request/figures-request.ts';
import type { RunRecord } from '../figures/request/job-record.ts';
import { recordOfJob, type StoredJob } from '../figures/request/record-of-job.ts';
import { runsOfOwnKinds } from '../figures/runs/kinds-of-job.ts';
import { countedRuns } from '../job/counted.ts';
import type { PowerUnit } from '../units/units.ts';
import type { ReportedJob } from './reported-job.ts';

/** The setups that a report is about: what arrived, and what is delivered or, until that is named, was tried last. */
export function reportSides({
  setups,
  runs,
  deliveredSetupId,
}: Pick<ReportedJob, 'deliveredSetupId'> & {
  setups: readonly Pick<ReportedJob['setups'][number], 'id' | 'decision'>[];
  runs: readonly Pick<RunRecord, 'setupId' | 'kind' | 'setAsideReason' | 'state'>[];
}): {
  arrivedId: number;
  deliveredId: number;
} {
  const ended = runs.filter(({ state }) => state !== 'recording');
  const power = setups.filter(({ id }) => countedRuns(ended, id).length > 0);
  // A job about starting or burning less may have no power run at all.
  const tested = runsOfOwnKinds(ended);
  const ran = power.length > 0 ? power : setups.filter(({ id }) => tested.some(({ setupId }) => setupId === id));
  const arrived = ran[0] ?? setups[0]!;
  const last = ran.findLast(({ decision }) => decision !== 'go back') ?? arrived;
  return { arrivedId: arrived.id, deliveredId: deliveredSetupId ?? last.id };
}

/** How a report is looked at, beside what the job itself decides. */
export interface ReportView {
  standard: StandardId;
  powerUnit: PowerUnit;
}

type Reportable<Run extends RunRecord> = StoredJob<Run> &
  Parameters<typeof reportSides>[0] & { bands: readonly { fromRpm: number; toRpm: number }[] };

/** The figures that a job's report is composed from: all of the correction, automatic smoothing, every pair. */
export function reportRequest<Run extends RunRecord>(
  job: Reportable<Run>,
  learned: Learned | undefined,
  { standard, powerUnit }: ReportView,
): Omit<FiguresRequest, 'job' | 'guest'> & { job: ReturnType<typeof recordOfJob<Run>> } {
  const { arrivedId, deliveredId } = reportSides(job);
  const view: FiguresView = {
    standard,
    share: 1,
    smoothing: 'auto',
    baselineId: arrivedId,
    againstId: arrivedId,
    testId: deliveredId,
    bands: job.bands.map(({ fromRpm, toRpm }) => [fromRpm, toRpm] as const),
    everyPair: true,
    tests: true,
    powerUnit,
  };
  return { job: recordOfJob<Run>(job), learned, view };
}
