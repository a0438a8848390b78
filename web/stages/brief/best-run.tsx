import { Select } from '@mantine/core';
import type { Job } from '../../../contract/job/records.ts';
import { api } from '../../state/api.ts';
import { useChange } from '../../state/use-change.ts';

/** The run that somebody names as the best that was seen, set aside or not. */
export function BestRun({ job }: { job: Job }) {
  const change = useChange((bestRunId: number | null) => api.changeJob(job.id, { bestRunId }));
  const runs = job.runs.filter((run) => run.label && run.kind === 'power' && run.state !== 'recording');
  if (runs.length === 0) return null;
  return (
    <Select
      label="Best run seen"
      placeholder="name it"
      clearable
      data={runs.map((run) => ({
        value: String(run.id),
        label: `${run.label}${run.setAsideReason ? ' (set aside)' : ''}`,
      }))}
      value={job.bestRunId === null ? null : String(job.bestRunId)}
      onChange={(id) => change.mutate(id === null ? null : Number(id))}
    />
  );
}
