import { useMemo } from 'react';
import type { Job } from '../../../contract/job/records.ts';
import { lastOnDyno } from '../../../core/job/last-on-dyno.ts';
import { reportRequest } from '../../../core/report/report-request.ts';
import { reportSource } from '../../../core/report/make-report.ts';
import type { ReportSource } from '../../../core/report/reported-job.ts';
import type { StandardId } from '../../../core/air/correction.ts';
import type { PowerUnit } from '../../../core/units/units.ts';
import { useStandard } from '../../job/use-standard.ts';
import { useLearned } from '../../state/queries.ts';
import { useFigures } from '../../workers/figures.ts';

/** What a job's report is composed from, once its figures are made. @param fixed standard of a kept one, whatever is preferred now */
export function useReportSource(
  job: Job,
  powerUnit: PowerUnit,
  fixed?: StandardId,
): { source: ReportSource | undefined; error: Error | null } {
  const usual = useStandard(job);
  const standard = fixed ?? usual;
  const { learned, pending } = useLearned(lastOnDyno(job.runs)?.device, job.id);
  const ended = job.runs.some(({ state }) => state !== 'recording');
  const { data: figures, error } = useFigures(
    pending || !ended ? undefined : reportRequest(job, learned, { standard, powerUnit }),
  );
  const source = useMemo(() => figures && reportSource(job, figures, standard), [job, figures, standard]);
  return { source, error };
}
