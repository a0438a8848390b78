import { Button, SegmentedControl, TextInput } from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import { IconSearch } from '@tabler/icons-react';
import { useRef, useState } from 'react';
import { useSearchParams } from 'react-router';
import { ImportJob } from '../../bundles/import-job.tsx';
import { useKeys } from '../../keys/use-keys.ts';
import { useLive } from '../../state/live.ts';
import { useJobs } from '../../state/queries.ts';
import { Keycap } from '../../ui/keycap.tsx';
import { JobLine } from './job-line.tsx';
import classes from './jobs-page.module.css';
import { NewJob } from './new-job.tsx';
import { UnclaimedRuns } from './unclaimed-runs.tsx';

const states = ['all', 'dyno', 'waiting', 'finished'] as const;
const stateNames = { all: 'All', dyno: 'On the dyno', waiting: 'Waiting', finished: 'Finished' } as const;
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
  useKeys([
    { keys: ['n'], shown: 'N', says: 'New job', run: () => setAdding(true) },
    { keys: ['/'], shown: '/', says: 'Search jobs', run: () => field.current?.focus() },
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
  const jobs = data?.jobs;
  const groups = (['dyno', 'waiting', 'finished'] as const).map((name) => ({
    name,
    jobs: (jobs ?? []).filter(
      ({ id, state: stands }) => name === (onDyno.has(id) ? 'dyno' : stands === 'closed' ? 'finished' : 'waiting'),
    ),
  }));
  return (
    <main className={classes.page}>
      <header className={classes.head}>
        <h1>Jobs</h1>
        <SegmentedControl
          aria-label="Which jobs"
          value={state}
          onChange={(value) => look({ state: value })}
          data={states.map((value) => ({ value, label: stateNames[value] }))}
        />
        <TextInput
          ref={field}
          aria-label="Search jobs"
          placeholder="Owner, vehicle, plate, change, note"
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
              : { dyno: 'No car is on a dyno.', waiting: 'No job waits.', finished: 'No job is finished yet.' }[state]}
        </p>
      )}
      {groups.map(
        ({ name, jobs: own }) =>
          own.length > 0 && (
            <section key={name} className={classes.group}>
              <h2 className="heading">{stateNames[name]}</h2>
              <ul className={classes.list}>
                {own.map((job) => (
                  <JobLine key={job.id} job={job} />
                ))}
              </ul>
            </section>
          ),
      )}
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
