import { Menu } from '@mantine/core';
import type { BayState } from '../../../../contract/bays/live.ts';
import { useLive } from '../../../state/live.ts';
import classes from './control-bar.module.css';

/** Where there are several bays: the one that the job is recorded in, large, and changeable. */
export function WhichBay({ onBay }: { onBay: (bay: number) => void }) {
  const bays = useLive((state) => state.bays);
  const watched = useLive((state) => state.watched);
  const here = bays.find(({ bay }) => bay === watched);
  if (bays.length < 2 || !here) return null;
  return (
    <Menu position="top-start" shadow="md">
      <Menu.Target>
        <button className={classes.gear} title="The bay that this job is recorded in" aria-label={`Bay: ${here.name}`}>
          {here.name}
        </button>
      </Menu.Target>
      <Menu.Dropdown>
        {bays.map((bay) => (
          <Menu.Item key={bay.bay} className={classes.kind} onClick={() => bay !== here && onBay(bay.bay)}>
            {bay.name}
            <small>{whatIsThere(bay)}</small>
          </Menu.Item>
        ))}
      </Menu.Dropdown>
    </Menu>
  );
}

function whatIsThere({ devices, mounted }: BayState): string {
  const dyno = devices.find((device) => device.dyno !== null);
  return `${dyno?.name ?? 'no dyno'}, ${mounted ? 'a car is on it' : 'nothing on it'}`;
}
