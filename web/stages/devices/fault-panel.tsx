import { Chip } from '@mantine/core';
import { useState } from 'react';
import type { DeviceState } from '../../../contract/bays/live.ts';
import { api } from '../../state/api.ts';
import { useChange } from '../../state/use-change.ts';
import classes from './devices-page.module.css';

/** What a stand-in can be made to do wrong, for demonstrations and training; no real machine has this. */
export function FaultPanel({ device }: { device: DeviceState }) {
  const play = useChange((faults: string[]) => api.playFaults(device.device, faults));
  // What was asked for last, until the stand-in says what it plays.
  const [asked, setAsked] = useState<string[]>();
  const on = device.faults.on.join();
  const [told, setTold] = useState(on);
  const [opened, setOpened] = useState(on !== '');
  if (told !== on) {
    setTold(on);
    setAsked(undefined);
  }
  return (
    <details className={classes.fold} open={opened} onToggle={(event) => setOpened(event.currentTarget.open)}>
      <summary>
        Simulate faults (training){on !== '' && <b>: {device.faults.on.join(', ')}</b>}
        <small>hop and slip need tyres on a roller, slip between axles two of them; boost faults a blown engine</small>
      </summary>
      <Chip.Group
        multiple
        value={asked ?? device.faults.on}
        onChange={(faults) => {
          setAsked(faults);
          play.mutate(faults);
        }}
      >
        <div className={classes.faults} role="group" aria-label={`Faults that ${device.name} plays`}>
          {device.faults.offered.map((fault) => (
            <Chip key={fault} value={fault} size="md">
              {fault}
            </Chip>
          ))}
        </div>
      </Chip.Group>
    </details>
  );
}
