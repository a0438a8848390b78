import { Button } from '@mantine/core';
import { useEffect, type ReactNode } from 'react';
import { useParams } from 'react-router';
import type { Job } from '../../contract/records.ts';
import { useJob } from '../state/queries.ts';
import { prepareFigures } from '../workers/figures.ts';
import classes from './problem-page.module.css';

/** A stage of the job in the address: what it shows once the job is there, or why it is not. */
export function WithJob({ children }: { children: (job: Job) => ReactNode }) {
  const { jobId } = useParams();
  const { data: job, error, refetch } = useJob(Number(jobId));
  const runs = job?.runs.length;
  useEffect(() => {
    if (job) prepareFigures(job);
    // Only what was recorded since makes it worth doing again.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [job?.id, runs]);
  if (job) return children(job);
  if (!error) return <main aria-busy />;
  return (
    <main className={classes.page} role="alert">
      <p>{error.message}</p>
      <Button variant="default" onClick={() => void refetch()}>
        Try again
      </Button>
    </main>
  );
}
