import { Select } from '@mantine/core';
import type { JobSummary, Run } from '../../../contract/job/records.ts';
import { api } from '../../state/api.ts';
import { useUnclaimedRuns } from '../../state/queries.ts';
import { useChange } from '../../state/use-change.ts';
import classes from './unclaimed-runs.module.css';
import { newestSetup } from '../../../core/job/baseline.ts';

/** Pulls that were kept while no job was on the dyno, and the way to put each where it belongs. */
export function UnclaimedRuns({ jobs }: { jobs: JobSummary[] }) {
  const { data: runs } = useUnclaimedRuns();
  const claim = useChange(async ({ run, jobId }: { run: Run; jobId: number }) => {
    const job = await api.job(jobId);
    return api.changeRun(run.id, { setupId: newestSetup(job.setups).id });
  });
  if (!runs || runs.length === 0) return null;
  return (
    <section className={classes.strip} aria-label="Runs that belong to no job yet">
      <h2>{runs.length === 1 ? 'One pull was kept' : `${runs.length} pulls were kept`} while no job was on the dyno</h2>
      <ul>
        {runs.map((run) => (
          <li key={run.id}>
            <span>
              {new Date(run.startedAt).toLocaleString([], { dateStyle: 'medium', timeStyle: 'medium' })}, {run.source}
              {run.state === 'interrupted' && ', interrupted'}
            </span>
            <Select
              aria-label={`Job for the pull of ${new Date(run.startedAt).toLocaleTimeString()}`}
              placeholder="Put it into a job"
              searchable
              size="sm"
              data={jobs.map((job) => ({ value: String(job.id), label: job.vehicle }))}
              onChange={(jobId) => jobId && claim.mutate({ run, jobId: Number(jobId) })}
            />
          </li>
        ))}
      </ul>
    </section>
  );
}
