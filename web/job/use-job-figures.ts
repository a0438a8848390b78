import { useUnits } from '../units/use-own-units.tsx';
import type { Job } from '../../contract/job/records.ts';
import { lastOnDyno } from '../../core/job/last-on-dyno.ts';
import type { FiguresView } from '../../core/figures/request/figures-request.ts';
import type { JobFigures } from '../../core/figures/job-figures.ts';
import { useStandard } from './use-standard.ts';
import { useLearned } from '../state/queries.ts';
import { recordOfJob } from '../../core/figures/request/record-of-job.ts';
import { useFigures } from '../workers/figures.ts';

/**
 * A job's figures as every stage but Compare looks at them: by the shop's preferences, with all that it has learned.
 * @param wanted false while something else is waited for that the worker should do first
 */
export function useJobFigures(
  job: Job,
  sides: Pick<FiguresView, 'testId' | 'againstId'>,
  wanted = true,
): JobFigures | undefined {
  const standard = useStandard(job);
  const { power: powerUnit } = useUnits();
  const { learned, pending } = useLearned(lastOnDyno(job.runs)?.device, job.id);
  const hasRuns = job.runs.some((run) => run.state !== 'recording');
  const { data } = useFigures(
    wanted && hasRuns && !pending
      ? { job: recordOfJob(job), learned, view: { standard, share: 1, smoothing: 'auto', ...sides, powerUnit } }
      : undefined,
  );
  return data;
}
