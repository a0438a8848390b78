import { Button, Select } from '@mantine/core';
import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import type { BayState } from '../../../contract/bays/live.ts';
import { newestSetup } from '../../../core/job/baseline.ts';
import { NotThere } from '../../app/not-there.tsx';
import { WithJob } from '../../app/with-job.tsx';
import { BigFigures } from '../../live/big-figures.tsx';
import { api } from '../../state/api.ts';
import { useWatchedBay } from '../../state/bays.ts';
import { identifierIn } from '../../state/identifier.ts';
import { useLive } from '../../state/live.ts';
import { useJobs } from '../../state/queries.ts';
import { useChange } from '../../state/use-change.ts';
import classes from './bay-stage.module.css';
import { Trouble } from './during/trouble.tsx';
import { Recording } from './record-stage.tsx';

/** Record at a bay's own address, for the screen that hangs there: whatever car is put on its dyno. */
export function BayStage() {
  const { bay: written } = useParams();
  const number = identifierIn(written);
  useWatchedBay(number);
  const bays = useLive((state) => state.bays);
  const navigate = useNavigate();
  if (bays.length === 0) return <main aria-busy />;
  const bay = bays.find((candidate) => candidate.bay === number);
  if (!bay) return <NotThere why={`There is no bay “${written}”.`} list={{ address: '/devices', name: 'All bays' }} />;
  if (!bay.mounted) return <EmptyBay bay={bay} key={bay.bay} />;
  const { jobId } = bay.mounted;
  return (
    <WithJob of={jobId}>
      {(job) => (
        <Recording job={job} key={`${jobId} ${bay.bay}`} onBay={(chosen) => void navigate(`/bays/${chosen}/record`)} />
      )}
    </WithJob>
  );
}

/** No car is on the dyno: what can be read all the same, and the way to put one on. */
function EmptyBay({ bay }: { bay: BayState }) {
  const { data } = useJobs({ state: 'open', search: '', offset: 0 });
  const [chosen, setChosen] = useState<string | null>(null);
  const mount = useChange(async (jobId: number) => {
    const job = await api.job(jobId);
    return api.mount(bay.bay, { jobId, setupId: newestSetup(job.setups).id });
  });
  return (
    <main className={classes.empty} aria-label={bay.name}>
      <BigFigures />
      <section>
        <Trouble />
        <h1>No car is on the dyno of {bay.name}</h1>
        <p>A pull is recorded all the same and kept; it belongs to no job until it is claimed on the Jobs page.</p>
        <form
          className={classes.choice}
          onSubmit={(event) => {
            event.preventDefault();
            if (chosen) mount.mutate(Number(chosen));
          }}
        >
          <Select
            label="Job"
            placeholder="Open jobs, by vehicle"
            searchable
            size="lg"
            nothingFoundMessage="No open job of that name"
            data={(data?.jobs ?? []).map(({ id, vehicle, question }) => ({
              value: String(id),
              label: question ? `${vehicle}: ${question}` : vehicle,
            }))}
            value={chosen}
            onChange={setChosen}
          />
          <Button type="submit" size="lg" disabled={!chosen} loading={mount.isPending}>
            Put on dyno
          </Button>
        </form>
        <p>
          <Link to="/jobs">All jobs</Link>
        </p>
      </section>
    </main>
  );
}
