import { Button, TextInput } from '@mantine/core';
import { useHotkeys } from '@mantine/hooks';
import { useState } from 'react';
import type { Job, Setup } from '../../contract/records.ts';
import { changeItems } from '../../core/setup/change.ts';
import { api } from '../state/api.ts';
import { useChange } from '../state/queries.ts';
import { Keycap } from '../ui/keycap.tsx';
import classes from './new-setup.module.css';

interface NewSetupProps {
  job: Job;
  parent: Setup;
  onAdded: (setup: Setup) => void;
  /** Whether N opens it. */
  hotkey: boolean;
}

/** Begins a setup from another one with one line that says what changed. */
export function NewSetup({ job, parent, onAdded, hotkey }: NewSetupProps) {
  const [line, setLine] = useState<string>();
  const add = useChange((change: string) => api.addSetup(job.id, { parentId: parent.id, change }));
  const open = () => setLine((current) => current ?? '');
  useHotkeys(hotkey ? [['n', open]] : []);
  if (line === undefined) {
    return (
      <button className={classes.open} onClick={open}>
        + New setup from {parent.letter} {hotkey && <Keycap>N</Keycap>}
      </button>
    );
  }
  return (
    <form
      className={classes.form}
      onSubmit={(event) => {
        event.preventDefault();
        if (line.trim() === '') return;
        add.mutate(line, {
          onSuccess: (setup) => {
            setLine(undefined);
            onAdded(setup);
          },
        });
      }}
    >
      <TextInput
        label={`What changed from ${parent.letter}?`}
        placeholder="ignition +1.5° above 4,000"
        value={line}
        onChange={(event) => setLine(event.currentTarget.value)}
        onKeyDown={(event) => event.key === 'Escape' && setLine(undefined)}
        data-autofocus
        autoFocus
      />
      {changeItems(line).map((item) => (
        <small key={item.kind} className="soft">
          {item.kind === 'ignition'
            ? `Understood: ignition ${sign(item.deltaDeg)}°${item.aboveRpm ? ` above ${item.aboveRpm} rpm` : ''}`
            : `Understood: intake ${sign(item.deltaMm)} mm`}
        </small>
      ))}
      <div className={classes.buttons}>
        <Button type="submit" size="md" px={14} variant="default" loading={add.isPending} disabled={line.trim() === ''}>
          Begin
        </Button>
        <Button size="md" px={10} variant="subtle" color="gray" onClick={() => setLine(undefined)}>
          Cancel
        </Button>
      </div>
    </form>
  );
}

function sign(value: number): string {
  return value < 0 ? `−${-value}` : `+${value}`;
}
