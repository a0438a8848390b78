import { Autocomplete, Button, Group } from '@mantine/core';
import { useState } from 'react';
import type { DeviceState } from '../../../contract/bays/live.ts';
import { channelLabel, knownChannels } from '../../../core/recording/channels.ts';
import { api } from '../../state/api.ts';
import { useChange } from '../../state/use-change.ts';
import classes from './devices-page.module.css';

/** Which of Suvok's channels each of the instrument's is: its own name, another one, or none. */
export function ChannelNames({ device }: { device: DeviceState }) {
  const stored = device.settings.channelNames;
  const [draft, setDraft] = useState(stored);
  const save = useChange(() => api.setDevice({ device: device.device, channelNames: draft }));
  const renamed = Object.keys(stored).length;
  const names = Object.keys(knownChannels).filter((name) => name !== 'time');
  return (
    <details className={classes.fold}>
      <summary>
        Channel names
        <small>
          {renamed === 0
            ? 'as the instrument calls them'
            : `${renamed} ${renamed === 1 ? 'is' : 'are'} called otherwise`}
        </small>
      </summary>
      <div className={classes.setting}>
        <p>
          A name that Suvok knows is judged and converted; any other is kept and shown. An empty one leaves the channel
          out.
        </p>
        <div className={classes.names}>
          {device.declared.map(({ name, unit }) => (
            <Autocomplete
              key={name}
              label={`${name} [${unit}]`}
              size="sm"
              data={names}
              renderOption={({ option }) => `${option.value} · ${channelLabel(option.value)}`}
              value={draft[name] ?? name}
              onChange={(value) => {
                const others = Object.fromEntries(Object.entries(draft).filter(([declared]) => declared !== name));
                setDraft(value === name ? others : { ...others, [name]: value });
              }}
            />
          ))}
        </div>
        <Group gap={8} mt={10}>
          <Button
            variant="default"
            size="md"
            disabled={JSON.stringify(draft) === JSON.stringify(stored)}
            loading={save.isPending}
            onClick={() => save.mutate(undefined)}
          >
            Use these names
          </Button>
          <span className="soft">The instrument is taken up anew with them.</span>
        </Group>
      </div>
    </details>
  );
}
