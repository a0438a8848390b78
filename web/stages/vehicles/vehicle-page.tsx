import { Button } from '@mantine/core';
import { Link, useNavigate, useParams } from 'react-router';
import type { VehicleWithAll } from '../../../contract/shop/vehicles.ts';
import { NotThere } from '../../app/not-there.tsx';
import { api } from '../../state/api.ts';
import { identifierIn } from '../../state/identifier.ts';
import { useVehicle } from '../../state/queries.ts';
import { useChange } from '../../state/use-change.ts';
import brief from '../../ui/file-form.module.css';
import stage from '../../ui/columns.module.css';
import { EngineFields } from './engine-fields.tsx';
import { OwnerFields } from './owner-fields.tsx';
import { Parts } from './parts.tsx';
import { RatioFields } from './ratio-fields.tsx';

const allVehicles = { address: '/vehicles', name: 'All vehicles' };

/** A vehicle: whose it is, what it is, what is in it, and all its jobs. */
export function VehiclePage() {
  const { vehicleId } = useParams();
  const id = identifierIn(vehicleId);
  const { data: vehicle, error, refetch } = useVehicle(id ?? 0, id !== undefined);
  if (id === undefined) return <NotThere why={`“${vehicleId}” is not the number of a vehicle.`} list={allVehicles} />;
  if (error) return <NotThere why={error.message} tryAgain={() => void refetch()} list={allVehicles} />;
  return vehicle ? <Vehicle key={vehicle.id} vehicle={vehicle} /> : null;
}

function Vehicle({ vehicle }: { vehicle: VehicleWithAll }) {
  return (
    <main className={stage.stage}>
      <div className={stage.column}>
        <div className={brief.state}>
          <h1>{vehicle.name}</h1>
        </div>
        <OwnerFields vehicle={vehicle} />
        <Jobs vehicle={vehicle} />
      </div>
      <div className={stage.column}>
        <EngineFields vehicle={vehicle} />
      </div>
      <div className={stage.column}>
        <RatioFields vehicle={vehicle} />
        <Parts vehicle={vehicle} />
      </div>
    </main>
  );
}

function Jobs({ vehicle }: { vehicle: VehicleWithAll }) {
  const navigate = useNavigate();
  const begin = useChange(() => api.addJob({ vehicleId: vehicle.id }));
  return (
    <section className={brief.section}>
      <h2 className="heading">Its jobs</h2>
      <ul className={brief.list}>
        {vehicle.jobs.map((job) => (
          <li key={job.id} className={brief.entry}>
            <p>
              <Link to={`/jobs/${job.id}/brief`} style={{ color: 'inherit' }}>
                {job.question || 'No question noted'}
              </Link>
              <small className="number">
                {new Date(job.lastRunAt ?? job.createdAt).toLocaleDateString('en-GB', { dateStyle: 'medium' })} ·{' '}
                {job.setups} setup{job.setups === 1 ? '' : 's'}, {job.runs} run{job.runs === 1 ? '' : 's'} · {job.state}
              </small>
            </p>
          </li>
        ))}
      </ul>
      <Button
        variant="default"
        mt={10}
        loading={begin.isPending}
        onClick={() => begin.mutate(undefined, { onSuccess: (job) => void navigate(`/jobs/${job.id}/brief`) })}
      >
        New job with this car
      </Button>
    </section>
  );
}
