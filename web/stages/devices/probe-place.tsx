import { Button, Group, Select } from '@mantine/core';
import { useState } from 'react';
import type { DeviceState } from '../../../contract/bays/live.ts';
import { ProbeFields } from '../../log/probe-fields.tsx';
import { api } from '../../state/api.ts';
import { useChange } from '../../state/use-change.ts';
import classes from './devices-page.module.css';

/** Usual places of a λ probe: starting points, to be put right by a step of throttle. */
const places = [
  { value: 'manifold', label: 'before the turbine or at the collector', delayS: 0.03, offset: 0 },
  { value: 'downpipe', label: 'after the turbine or in the downpipe', delayS: 0.06, offset: 0 },
  { value: 'tailpipe', label: 'in the tailpipe', delayS: 0.16, offset: 0.005 },
] as const;

/** Where the λ probe sits: how late it is and how much too lean it reads; kept with each run, applied when its log is read. */
export function ProbePlace({ device }: { device: DeviceState }) {
  const { probe } = device.settings;
  const [draft, setDraft] = useState(probe);
  const save = useChange(() => api.setDevice({ device: device.device, probe: draft }));
  const same = draft.delayS === probe.delayS && draft.offset === probe.offset;
  return (
    <details className={classes.fold}>
      <summary>
        λ probe
        <small>
          {probe.delayS === 0 && probe.offset === 0
            ? 'taken as it reads'
            : `${probe.delayS} s late, reads ${probe.offset} too lean`}
        </small>
      </summary>
      <div className={classes.setting}>
        <p>
          A probe in the tailpipe is late by the way of the gas and reads leaner than the truth, most at idle. Runs
          recorded so far keep the place they were made with.
        </p>
        <Group gap={8} align="end">
          <Select
            label="It sits"
            placeholder="choose for a start"
            data={places.map(({ value, label }) => ({ value, label }))}
            value={
              places.find(({ delayS, offset }) => delayS === draft.delayS && offset === draft.offset)?.value ?? null
            }
            onChange={(value) => {
              const place = places.find((candidate) => candidate.value === value);
              if (place) setDraft({ delayS: place.delayS, offset: place.offset });
            }}
          />
          <ProbeFields probe={draft} onChange={setDraft} />
          <Button
            variant="default"
            size="md"
            disabled={same}
            loading={save.isPending}
            onClick={() => save.mutate(undefined)}
          >
            Apply
          </Button>
        </Group>
      </div>
    </details>
  );
}
