import { Button, TextInput } from '@mantine/core';
import { IconSearch } from '@tabler/icons-react';
import dayjs from 'dayjs';
import relativeTime from 'dayjs/plugin/relativeTime.js';
import { useState } from 'react';
import { Link } from 'react-router';
import type { JobSummary } from '../../../contract/records.ts';
import { useLive } from '../../state/live.ts';
import { useJobs } from '../../state/queries.ts';
import classes from './jobs-page.module.css';
import { NewJob } from './new-job.tsx';
import { UnclaimedRuns } from './unclaimed-runs.tsx';

dayjs.extend(relativeTime);

/** All jobs: what is on the dyno, what came last, and what is looked for. */
export function JobsPage() {
  const { data: jobs, error, refetch } = useJobs();
  const [search, setSearch] = useState('');
  const [adding, setAdding] = useState(false);
  const mountedJobId = useLive((state) => state.bay?.mounted?.jobId);
  // The car on the dyno comes first; the server has sorted the rest.
  const wanted = jobs
    ?.filter((job) => matches(job, search))
    .sort((a, b) => Number(b.id === mountedJobId) - Number(a.id === mountedJobId));
  return (
    <main className={classes.page}>
      <header className={classes.head}>
        <h1>Jobs</h1>
        <TextInput
          aria-label="Search jobs"
          placeholder="Vehicle, owner or question"
          leftSection={<IconSearch size={16} />}
          value={search}
          onChange={(event) => setSearch(event.currentTarget.value)}
          className={classes.search}
        />
        <Button onClick={() => setAdding(true)}>New job</Button>
      </header>
      <NewJob opened={adding} onClose={() => setAdding(false)} />
      <UnclaimedRuns jobs={jobs ?? []} />
      {error && (
        <div className={classes.empty} role="alert">
          {error.message}{' '}
          <Button variant="default" size="sm" onClick={() => void refetch()}>
            Try again
          </Button>
        </div>
      )}
      {wanted && wanted.length === 0 && (
        <p className={classes.empty}>
          {search
            ? `No job matches “${search}”.`
            : 'No job yet. Begin one with “New job”; its runs are recorded under it.'}
        </p>
      )}
      <ul className={classes.list}>
        {wanted?.map((job) => (
          <li key={job.id}>
            <Link to={`/jobs/${job.id}/${job.runs > 0 ? 'compare' : 'record'}`} className={classes.job}>
              <span className={classes.vehicle}>
                {job.vehicle}
                {job.id === mountedJobId && <i>on the dyno</i>}
              </span>
              <span className={classes.question}>{job.question || 'No question noted'}</span>
              <span className={classes.owner}>{job.owner}</span>
              <span className={classes.count}>
                {job.setups} setup{job.setups === 1 ? '' : 's'} · {job.runs} run{job.runs === 1 ? '' : 's'}
              </span>
              <span className={classes.when} title={job.lastRunAt ?? job.createdAt}>
                {job.lastRunAt
                  ? `last run ${dayjs(job.lastRunAt).fromNow()}`
                  : `booked ${dayjs(job.createdAt).fromNow()}`}
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </main>
  );
}

function matches(job: JobSummary, search: string): boolean {
  const text = `${job.vehicle} ${job.owner} ${job.question}`.toLowerCase();
  return search
    .toLowerCase()
    .split(/\s+/)
    .every((word) => text.includes(word));
}
