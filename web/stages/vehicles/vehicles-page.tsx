import { TextInput, Button } from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import { IconSearch } from '@tabler/icons-react';
import dayjs from 'dayjs';
import relativeTime from 'dayjs/plugin/relativeTime.js';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { useKeys } from '../../keys/use-keys.ts';
import { Keycap } from '../../ui/keycap.tsx';
import { NewVehicle } from './new-vehicle.tsx';
import { api } from '../../state/api.ts';
import { useVehicles } from '../../state/queries.ts';
import { useChange } from '../../state/use-change.ts';
import classes from '../jobs/jobs-page.module.css';

dayjs.extend(relativeTime);

/** All vehicles that were here, the one seen last first. */
export function VehiclesPage() {
  const [search, setSearch] = useState('');
  const [asked] = useDebouncedValue(search, 150);
  const { data: vehicles, error } = useVehicles(asked);
  const [adding, setAdding] = useState(false);
  useKeys([{ keys: ['n'], shown: 'N', says: 'New vehicle', run: () => setAdding(true) }]);
  const navigate = useNavigate();
  const add = useChange(() => api.addVehicle({ name: search.trim() }));
  return (
    <main className={classes.page}>
      <header className={classes.head}>
        <h1>Vehicles</h1>
        <TextInput
          aria-label="Search vehicles"
          placeholder="Vehicle, owner, plate or engine"
          leftSection={<IconSearch size={16} />}
          value={search}
          onChange={(event) => setSearch(event.currentTarget.value)}
          className={classes.search}
        />
        <Button onClick={() => setAdding(true)} rightSection={<Keycap>N</Keycap>}>
          New vehicle
        </Button>
      </header>
      <NewVehicle opened={adding} onClose={() => setAdding(false)} />
      {error && (
        <p className={classes.empty} role="alert">
          {error.message}
        </p>
      )}
      {vehicles?.length === 0 && (
        <p className={classes.empty}>
          {search ? `No vehicle matches “${search}”. ` : 'No vehicle yet. It is written down with its first job. '}
          {search.trim() && (
            <Button
              variant="default"
              loading={add.isPending}
              onClick={() =>
                add.mutate(undefined, { onSuccess: (vehicle) => void navigate(`/vehicles/${vehicle.id}`) })
              }
            >
              Write “{search.trim()}” down
            </Button>
          )}
        </p>
      )}
      <ul className={classes.list}>
        {vehicles?.map((vehicle) => (
          <li key={vehicle.id}>
            <Link to={`/vehicles/${vehicle.id}`} className={classes.job}>
              <span className={classes.vehicle}>
                <b>{vehicle.name}</b>
                <small>{[vehicle.ownerName, vehicle.plate].filter(Boolean).join(' · ')}</small>
              </span>
              <span className={classes.question}>{vehicle.engine || 'engine not described'}</span>
              <span />
              <span className={classes.waiting}>
                {vehicle.jobs} job{vehicle.jobs === 1 ? '' : 's'}
              </span>
              <span className={classes.when}>
                {vehicle.lastRunAt && `last run ${dayjs(vehicle.lastRunAt).fromNow()}`}
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </main>
  );
}
