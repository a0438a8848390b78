import { useMemo } from 'react';
import type { Job } from '../../../contract/records.ts';
import { reportSides } from '../../../core/report/compose-report.ts';
import type { ReportedJob, ReportSource } from '../../../core/report/reported-job.ts';
import type { PowerUnit } from '../../../core/units/units.ts';
import { itemsOf } from '../../job/inspection-items.ts';
import { usePreferences } from '../../state/preferences.ts';
import { useLearned } from '../../state/queries.ts';
import { recordOf, useFigures } from '../../workers/figures.ts';

/** What is written of a job, as a report tells it. */
function reportedJob(job: Job): ReportedJob {
  const ticked = (key: string) => job.inspections.some((entry) => entry.key === key && entry.outcome === 'ok');
  return {
    ...job,
    putBack: itemsOf(job)
      .filter(({ part }) => part === 'put back')
      .map(({ key, text }) => ({ text, done: ticked(key) })),
  };
}

/** What a job's report is composed from, once its figures are made. */
export function useReportSource(
  job: Job,
  powerUnit: PowerUnit,
): { source: ReportSource | undefined; error: Error | null } {
  const standard = usePreferences((state) => state.standard);
  const { learned, pending } = useLearned(job.runs.at(-1)?.device, job.id);
  const { arrivedId, deliveredId } = reportSides(job);
  const ended = job.runs.some(({ state }) => state !== 'recording');
  const { data: figures, error } = useFigures(
    pending || !ended
      ? undefined
      : {
          job: recordOf(job),
          learned,
          view: {
            standard,
            share: 1,
            smoothing: 'auto',
            baselineId: arrivedId,
            againstId: arrivedId,
            testId: deliveredId,
            bands: job.bands.map(({ fromRpm, toRpm }) => [fromRpm, toRpm] as const),
            everyPair: true,
            powerUnit,
          },
        },
  );
  const source = useMemo(
    () => figures && { job: reportedJob(job), figures, view: { standard, share: 1, auto: true } },
    [job, figures, standard],
  );
  return { source, error };
}
