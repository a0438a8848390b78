import { Popover, TextInput } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useEffect, useRef, useState } from 'react';
import type { BayState } from '../../../../contract/live.ts';
import type { Job, Setup } from '../../../../contract/records.ts';
import { setupColour } from '../../../setups/setup-colour.ts';
import { api } from '../../../state/api.ts';
import { useLive } from '../../../state/live.ts';
import { useChange } from '../../../state/queries.ts';
import { isTextField } from '../../../ui/text-field.ts';
import { Keycap } from '../../../ui/keycap.tsx';
import classes from './control-bar.module.css';
import { NextRunKind } from './run-kind.tsx';
import { WhichBay } from './which-bay.tsx';

interface ControlBarProps {
  job: Job;
  setup: Setup;
  mounted: boolean;
  isBaseline: boolean;
  onMount: () => void;
  onBay: (bay: number) => void;
  onArm: () => void;
}

/** A second press within this time is a gloved finger's stutter, ms. */
const stutterMs = 1000;

/** What happens now, in large words, and the one control. */
export function ControlBar({ job, setup, mounted, isBaseline, onMount, onBay, onArm }: ControlBarProps) {
  const bay = useLive((state) => state.bay);
  const connected = useLive((state) => state.connected);
  const now = controlFor(bay, connected, mounted);
  const pressedAt = useRef(-Infinity);
  const press = () => {
    if (performance.now() - pressedAt.current < stutterMs) return;
    pressedAt.current = performance.now();
    const fail = (error: Error) => notifications.show({ message: error.message, color: 'red', autoClose: 9000 });
    switch (now.act) {
      case 'mount':
        return onMount();
      case 'arm':
        onArm();
        return void api.arm(bay?.bay ?? 0).catch(fail);
      case 'end':
        return void api.end(bay?.bay ?? 0).catch(fail);
      case undefined:
    }
  };
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.code !== 'Space' || event.repeat || isTextField(event.target)) return;
      event.preventDefault();
      press();
    };
    // A focused button would answer to the key's release as well; the bar has the space key.
    const onKeyUp = (event: KeyboardEvent) => {
      if (event.code === 'Space' && !isTextField(event.target)) event.preventDefault();
    };
    document.addEventListener('keydown', onKey);
    document.addEventListener('keyup', onKeyUp);
    return () => {
      document.removeEventListener('keydown', onKey);
      document.removeEventListener('keyup', onKeyUp);
    };
  });
  const label = bay?.recorder.state === 'recording' && mounted ? (bay.recorder.label ?? setup.letter) : setup.letter;
  return (
    <div className={classes.bar}>
      <div className={classes.state}>
        <i style={{ background: setupColour(setup.letter, isBaseline) }}>{label}</i>
        <span role="status">{now.words}</span>
        {mounted && <NextRunKind />}
        {mounted && <Gear job={job} />}
        <WhichBay onBay={onBay} />
        <small>
          {setup.change}. {now.more}
        </small>
      </div>
      <button className={classes.control} onClick={press} disabled={now.act === undefined} data-testid="control">
        <span>
          {now.control} {now.act !== undefined && <Keycap>space</Keycap>}
        </span>
        <small>{now.below}</small>
      </button>
    </div>
  );
}

interface Now {
  words: string;
  more: string;
  control: string;
  below: string;
  act: 'mount' | 'arm' | 'end' | undefined;
}

function controlFor(bay: BayState | undefined, connected: boolean, mounted: boolean): Now {
  const kept = 'Kept even if you press nothing.';
  const heard = bay?.devices.some((device) => device.dyno && device.heard) ?? false;
  if (!bay || !connected)
    return {
      words: 'No server',
      more: 'The page tries to reach it again.',
      control: 'Record',
      below: 'not connected',
      act: undefined,
    };
  if (!mounted) {
    const other = bay.mounted ? 'Another car is on the dyno.' : 'No car is on the dyno.';
    return {
      words: 'Not on the dyno',
      more: other,
      control: 'Put on dyno',
      below: 'runs then go to this job',
      act: 'mount',
    };
  }
  switch (bay.recorder.state) {
    case 'armed':
      return {
        words: 'Waiting for the pull',
        more: kept,
        control: 'Cancel',
        below: 'nothing is recorded yet',
        act: 'end',
      };
    case 'recording':
      return { words: 'Recording', more: kept, control: 'End run', below: 'does not stop the car', act: 'end' };
    case 'sealing':
      return { words: 'Storing', more: '', control: 'Storing', below: 'a moment', act: undefined };
    case 'idle':
      return heard
        ? { words: 'Ready', more: kept, control: 'Record', below: 'or just pull: it starts by itself', act: 'arm' }
        : {
            words: 'No dyno connected',
            more: 'Switch it on or connect it; Suvok waits for it.',
            control: 'Record',
            below: 'no dyno connected',
            act: undefined,
          };
  }
}

/** The gear, large, and changeable. */
function Gear({ job }: { job: Job }) {
  const [gear, setGear] = useState(job.gear ?? '');
  const change = useChange((sent: string | null) => api.changeJob(job.id, { gear: sent }));
  return (
    <Popover
      position="top-start"
      trapFocus
      shadow="md"
      onClose={() => gear.trim() !== (job.gear ?? '') && change.mutate(gear.trim() || null)}
    >
      <Popover.Target>
        <button className={classes.gear}>{job.gear ? `in ${job.gear}` : 'gear?'}</button>
      </Popover.Target>
      <Popover.Dropdown>
        <TextInput
          label="Gear"
          placeholder="4th"
          value={gear}
          onChange={(event) => setGear(event.currentTarget.value)}
        />
      </Popover.Dropdown>
    </Popover>
  );
}
