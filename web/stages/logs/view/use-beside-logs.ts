import { useMemo } from 'react';
import type { Job } from '../../../../contract/job/records.ts';
import { engineOfRun } from '../../../../core/figures/runs/engine-of-run.ts';
import { recordOfJob } from '../../../../core/figures/request/record-of-job.ts';
import { useLogMeans } from '../../../workers/figures.ts';
import { toldLog } from '../../../log/told-log.ts';
import { ratioOfRun, useUnits } from '../../../units/use-own-units.tsx';
import type { LogSide } from './log-side.ts';
import type { Beside } from './beside.ts';

/** The logs of what is laid beside, as far as they are there; the same list while nothing of it changes. */
export function useBesideLogs(job: Job, beside: readonly Beside[]): LogSide[] {
  const record = recordOfJob(job);
  const { car } = job;
  const units = useUnits();
  const logs = useLogMeans(beside.map(({ runs }) => runs.map((run) => ({ run, engine: engineOfRun(record, run) }))));
  return useMemo(
    () =>
      beside.flatMap(({ label, colour, runs }, at) =>
        logs[at]
          ? [{ label, colour, log: toldLog(logs[at], units, ratioOfRun({ car }, runs[0] ?? { fuel: null })) }]
          : [],
      ),
    [beside, logs, units, car],
  );
}
