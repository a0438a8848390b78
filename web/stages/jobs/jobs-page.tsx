import { Button, SegmentedControl, TextInput } from '@mantine/core';
import { useDebouncedValue, useHotkeys } from '@mantine/hooks';
import { IconSearch } from '@tabler/icons-react';
import { useRef, useState } from 'react';
import { useSearchParams } from 'react-router';
import { ImportJob } from '../../bundles/import-job.tsx';
import { useLive } from '../../state/live.ts';
import { useJobs } from '../../state/queries.ts';
import { Keycap } from '../../ui/keycap.tsx';
import { JobLine } from './job-line.tsx';
import classes from './jobs-page.module.css';
import { NewJob } from './new-job.tsx';
import { UnclaimedRuns } from './unclaimed-runs.tsx';

const states = ['all', 'open', 'paused', 'closed'] as const;
const pageOf = 50;

/** All jobs: what each is waiting for, what came last, and what is looked for. The search stands in the address. */
export function JobsPage() {
  const [address, setAddress] = useSearchParams();
  const search = address.get('search') ?? '';
  const state = states.find((name) => name === address.get('state')) ?? 'all';
  const offset = Math.max(0, Math.trunc(Number(address.get('from')) || 0));
  const [asked] = useDebouncedValue(search, 150);
  const { data, error, refetch } = useJobs({ search: asked, state, offset });
  const [adding, setAdding] = useState(false);
  const field = useRef<HTMLInputElement>(null);
  useHotkeys([
    ['n', () => setAdding(true)],
    ['/', () => field.current?.focus()],
  ]);
  const look = (change: Record<string, string>) =>
    setAddress(
      (before) => {
        const next = new URLSearchParams({ ...Object.fromEntries(before), from: '', ...change });
        for (const [name, value] of [...next]) if (value === '' || value === 'all') next.delete(name);
        return next;
      },
      { replace: true },
    );
  const bays = useLive((live) => live.bays);
  const onDyno = new Set(bays.map(({ mounted }) => mounted?.jobId));
  // Cars on a dyno come first; the server has sorted the rest.
  const jobs = data && [...data.jobs].sort((a, b) => Number(onDyno.has(b.id)) - Number(onDyno.has(a.id)));
  return (
    <main className={classes.page}>
      <header className={classes.head}>
        <h1>Jobs</h1>
        <SegmentedControl
          aria-label="Which jobs"
          value={state}
          onChange={(value) => look({ state: value })}
          data={[...states]}
        />
        <TextInput
          ref={field}
          aria-label="Search jobs"
          placeholder="Owner, vehicle, plate or note"
          leftSection={<IconSearch size={16} />}
          rightSection={<Keycap>/</Keycap>}
          value={search}
          onChange={(event) => look({ search: event.currentTarget.value })}
          className={classes.search}
        />
        <ImportJob />
        <Button onClick={() => setAdding(true)} rightSection={<Keycap>N</Keycap>}>
          New job
        </Button>
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
      {jobs?.length === 0 && (
        <p className={classes.empty}>
          {search
            ? `No job matches “${search}”.`
            : state === 'all'
              ? 'No job yet. Begin one with “New job”; its runs are recorded under it.'
              : `No job is ${state}.`}
        </p>
      )}
      <ul className={classes.list}>
        {jobs?.map((job) => (
          <JobLine key={job.id} job={job} />
        ))}
      </ul>
      {data && data.total > data.jobs.length && (
        <nav className={classes.pages} aria-label="Pages of the list">
          <Button
            variant="default"
            disabled={offset === 0}
            onClick={() => look({ from: String(Math.max(0, offset - pageOf)) })}
          >
            Later
          </Button>
          <span className="number">
            {offset + 1}–{offset + data.jobs.length} of {data.total.toLocaleString('en-GB')}
          </span>
          <Button
            variant="default"
            disabled={offset + data.jobs.length >= data.total}
            onClick={() => look({ from: String(offset + pageOf) })}
          >
            Earlier
          </Button>
        </nav>
      )}
    </main>
  );
}
