import { Button, Group, TextInput } from '@mantine/core';
import { useState } from 'react';
import { Link } from 'react-router';
import type { BayState } from '../../../contract/bays/live.ts';
import { api } from '../../state/api.ts';
import { useJob } from '../../state/queries.ts';
import { useChange } from '../../state/use-change.ts';
import classes from './devices-page.module.css';

/** One of several bays: its name, what is on its dyno, its own addresses, and its going. */
export function BayHead({ bay }: { bay: BayState }) {
  const [name, setName] = useState(bay.name);
  const rename = useChange(() => api.renameBay(bay.bay, name.trim()));
  const remove = useChange(() => api.removeBay(bay.bay));
  const clear = useChange(() => api.clearBay(bay.bay));
  const { data: job } = useJob(bay.mounted?.jobId ?? 0, bay.mounted !== null);
  const changed = name.trim() !== bay.name && name.trim() !== '';
  return (
    <section className={classes.bay} aria-label={bay.name}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          if (changed) rename.mutate(undefined);
        }}
      >
        <Group gap={8} align="end">
          <TextInput
            label="Name of the bay"
            maxLength={40}
            value={name}
            onChange={(event) => setName(event.currentTarget.value)}
          />
          {changed && (
            <Button type="submit" variant="default" loading={rename.isPending}>
              Rename
            </Button>
          )}
          <div className={classes.ways}>
            <Link to={`/bays/${bay.bay}/record`}>Record</Link>
            <Link to={`/bays/${bay.bay}/drive`}>Driver’s view</Link>
          </div>
        </Group>
      </form>
      <Group gap={12}>
        <span>{job ? `On the dyno: ${job.vehicle}` : 'No car is on the dyno.'}</span>
        {bay.mounted ? (
          <Button variant="default" size="sm" loading={clear.isPending} onClick={() => clear.mutate(undefined)}>
            Take it off
          </Button>
        ) : (
          <Button variant="default" size="sm" loading={remove.isPending} onClick={() => remove.mutate(undefined)}>
            Take this bay away
          </Button>
        )}
      </Group>
    </section>
  );
}
