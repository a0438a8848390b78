import { keys } from '../../../state/query-keys.ts';
import { useOwnUnits } from '../../../units/use-own-units.tsx';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Job, Run } from '../../../../contract/job/records.ts';
import { engineOfRun } from '../../../../core/figures/runs/engine-of-run.ts';
import { api } from '../../../state/api.ts';
import button from '../../../ui/text-button.module.css';
import { formatRpm } from '../../../../core/wording/figures.ts';
import { figuresWorker } from '../../../workers/figures-worker.ts';
import { recordOfJob } from '../../../../core/figures/request/record-of-job.ts';
import classes from './log-side-pane.module.css';

/** A run of any visit, what was in its tank, and where its fuel pressure began to sag. */
interface SagOfRun {
  run: Run;
  jobId: number;
  fromRpm: number | undefined;
  sagKpa: number | undefined;
}

/** The vehicle's latest visits are looked at. */
const mostVisits = 6;

async function sagsOf(vehicleId: number): Promise<SagOfRun[]> {
  const { jobs } = await api.vehicle(vehicleId);
  const visits = await Promise.all(
    jobs
      .filter(({ runs }) => runs > 0)
      .slice(0, mostVisits)
      .map(({ id }) => api.job(id)),
  );
  const asked = visits.flatMap((job) =>
    job.runs
      .filter(({ kind, state }) => kind === 'power' && state !== 'recording')
      .map((run) => ({ run, jobId: job.id, engine: engineOfRun(recordOfJob(job), run) })),
  );
  const sags = await figuresWorker().fuelSags(asked.map(({ run, engine }) => [run, engine]));
  return asked
    .map(({ run, jobId }, at) => ({ run, jobId, fromRpm: sags[at]?.fromRpm, sagKpa: sags[at]?.sagKpa }))
    .filter(({ run }) => run.fuel !== null && run.fuel.litres !== null)
    .sort((a, b) => (b.run.fuel?.litres ?? 0) - (a.run.fuel?.litres ?? 0));
}

/** Where the fuel pressure begins to sag against what was in the tank, over this vehicle's visits: a pick-up that runs dry shows here. */
export function SagOverVisits({ job }: { job: Job }) {
  const own = useOwnUnits();
  const [opened, setOpened] = useState(false);
  const { data, error } = useQuery({
    queryKey: keys.fuelSags(job.vehicleId, job.runs.length),
    queryFn: () => sagsOf(job.vehicleId),
    enabled: opened,
  });
  if (!opened)
    return (
      <button className={button.act} onClick={() => setOpened(true)}>
        Sag against the tank’s level
      </button>
    );
  if (error) return <p role="alert">The other visits could not be read: {error.message}</p>;
  if (!data) return <div aria-busy>Reading the vehicle’s runs…</div>;
  if (data.length === 0)
    return <p className={classes.quiet}>No run tells how much was in the tank: write fuel and tank into the Brief.</p>;
  return (
    <table className={classes.table} aria-label="Sag against the tank’s level">
      <thead>
        <tr>
          <th scope="col">Tank, {own.unit('L')}</th>
          <th scope="col">sags from, rpm</th>
          <th scope="col">run</th>
        </tr>
      </thead>
      <tbody>
        {data.map(({ run, jobId, fromRpm, sagKpa }) => (
          <tr key={run.id}>
            <th scope="row">{own.figure(run.fuel?.litres ?? 0, 'L')}</th>
            <td>{fromRpm === undefined ? 'no sag' : `${formatRpm(fromRpm)} (${own.whole(sagKpa ?? 0, 'kPa')})`}</td>
            <td>
              <Link to={`/jobs/${jobId}/logs?run=${run.label ?? ''}`}>
                {run.label}, {new Date(run.startedAt).toLocaleDateString('en-GB')}
              </Link>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
