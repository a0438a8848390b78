import { useEffect, type ReactNode } from 'react';
import { useParams } from 'react-router';
import type { Job } from '../../contract/job/records.ts';
import { identifierIn } from '../state/identifier.ts';
import { useJob } from '../state/queries.ts';
import { prepareFigures } from '../workers/figures.ts';
import { NotThere } from './not-there.tsx';

const allJobs = { address: '/jobs', name: 'All jobs' };

interface WithJobProps {
  /** The job in the address where left out. */
  of?: number;
  children: (job: Job) => ReactNode;
}

/** A stage of a job: what it shows once the job is there, or why it is not. */
export function WithJob({ of, children }: WithJobProps) {
  const params = useParams();
  const jobId = of === undefined ? params.jobId : String(of);
  const id = identifierIn(jobId);
  const { data: job, error, refetch } = useJob(id ?? 0, id !== undefined);
  // Runs that have not changed stay the same list, so that nothing is drawn anew for them.
  const runs = job?.runs;
  useEffect(() => {
    if (runs) prepareFigures(runs);
  }, [runs]);
  if (id === undefined) return <NotThere why={`“${jobId}” is not the number of a job.`} list={allJobs} />;
  if (job) return children(job);
  if (!error) return <main aria-busy />;
  return <NotThere why={error.message} tryAgain={() => void refetch()} list={allJobs} />;
}
