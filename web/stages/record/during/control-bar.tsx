import { useKeys } from '../../../keys/use-keys.ts';
import { Popover, TextInput } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useEffect, useRef, useState } from 'react';
import type { BayState } from '../../../../contract/bays/live.ts';
import type { Job, Setup } from '../../../../contract/job/records.ts';
import type { Moment } from '../../../../core/readiness/moment.ts';
import { momentWord, whyNotReady } from '../../../../core/wording/moment-words.ts';
import { setupColour } from '../../../../core/scene/setup-look.ts';
import { api } from '../../../state/api.ts';
import { useLive } from '../../../state/live.ts';
import { useChange } from '../../../state/use-change.ts';
import { isTextField } from '../../../ui/text-field.ts';
import { Keycap } from '../../../ui/keycap.tsx';
import classes from './control-bar.module.css';
import { HandOff } from './hand-off.tsx';
import { NextRunKind } from './run-kind.tsx';
import { WhichBay } from './which-bay.tsx';

interface ControlBarProps {
  job: Job;
  setup: Setup;
  moment: Moment;
  /** What the next run will leave out; empty where that is nothing. */
  ahead: string;
  isBaseline: boolean;
  onMount: () => void;
  onBay: (bay: number) => void;
  onArm: () => void;
}

/** A second press within this time comes from a stuttering glove and is ignored, ms. */
const stutterMs = 1000;

/** What happens now, in large words, and the one control. */
export function ControlBar({ job, setup, moment, ahead, isBaseline, onMount, onBay, onArm }: ControlBarProps) {
  const bay = useLive((state) => state.bay);
  const now = controlFor(moment, bay);
  const mounted = moment.is !== 'not mounted' && moment.is !== 'no connection';
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
  useKeys([{ shown: 'Space', says: 'Record, or end the run: what the large control says' }]);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      // Where a button has the focus, space presses that button and not the control.
      if (event.code !== 'Space' || event.repeat || isTextField(event.target) || isPressable(event.target)) return;
      event.preventDefault();
      press();
    };
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  });
  const label = bay?.recorder.state === 'recording' && mounted ? (bay.recorder.label ?? setup.letter) : setup.letter;
  return (
    <div className={classes.bar}>
      <div className={classes.state}>
        <i style={{ background: setupColour(setup.letter, isBaseline) }}>{label}</i>
        <span role="status" data-testid="state">
          {now.words}
        </span>
        {mounted && <NextRunKind job={job} />}
        {mounted && <Gear job={job} />}
        <WhichBay onBay={onBay} />
        {mounted && <HandOff />}
        <small>
          {ahead && <b data-testid="ahead">{ahead} </b>}
          {now.more} {setup.change}.
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

/** True for elements that space presses by itself while they have the focus. */
const isPressable = (target: EventTarget | null) =>
  target instanceof Element &&
  target.closest('button, a, summary, input, select, [role="button"], [role="menuitem"], [role="option"]') !== null;

interface Now {
  words: string;
  more: string;
  control: string;
  below: string;
  act: 'mount' | 'arm' | 'end' | undefined;
}

/** What the one control does in each state; nothing is blocked because it is not ready. */
function controlFor(moment: Moment, bay: BayState | undefined): Now {
  const kept = 'Kept even if you press nothing.';
  const words = momentWord[moment.is];
  const record = { control: 'Record', below: 'or just pull: it starts by itself', act: 'arm' } as const;
  switch (moment.is) {
    case 'no connection':
      return {
        words,
        more: 'The page tries to reach it again.',
        control: 'Record',
        below: 'not connected',
        act: undefined,
      };
    case 'no recorder':
      return {
        words,
        more: 'It is started again by itself. What it had recorded is kept.',
        control: 'Record',
        below: 'nothing can be begun now',
        act: undefined,
      };
    case 'not mounted':
      return {
        words,
        more: bay?.mounted ? 'Another car is on the dyno.' : 'No car is on the dyno.',
        control: 'Put on dyno',
        below: 'runs then go to this job',
        act: 'mount',
      };
    case 'no dyno':
      return {
        words,
        more: 'Switch it on or connect it; Suvok waits for it.',
        control: 'Record',
        below: 'no dyno connected',
        act: undefined,
      };
    case 'waiting':
      return { words, more: kept, control: 'Cancel', below: 'nothing is recorded yet', act: 'end' };
    case 'recording':
      return { words, more: kept, control: 'End run', below: 'does not stop the car', act: 'end' };
    case 'storing':
      return { words, more: '', control: 'Storing', below: 'a moment', act: undefined };
    case 'coasting':
      return { words, more: 'The drum still turns.', ...record };
    case 'not ready':
      return { words, more: whyNotReady(moment), ...record };
    case 'ready':
    case 'result':
      return { words, more: kept, ...record };
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
