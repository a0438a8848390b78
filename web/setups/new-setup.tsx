import { useOwnUnits } from '../units/use-own-units.tsx';
import { Button, TextInput } from '@mantine/core';
import { useKeys } from '../keys/use-keys.ts';
import { useState } from 'react';
import type { Job, Setup } from '../../contract/job/records.ts';
import { itemSentence, type SetupItem } from '../../core/setup/item.ts';
import { readChange } from '../../core/setup/read-change.ts';
import { convert } from '../../core/units/units.ts';
import { api } from '../state/api.ts';
import { draftOf, keepDraft } from '../state/drafts.ts';
import { useChange } from '../state/use-change.ts';
import { Keycap } from '../ui/keycap.tsx';
import { numberOf } from '../ui/saved-field.tsx';
import button from '../ui/text-button.module.css';
import classes from './new-setup.module.css';

interface NewSetupProps {
  job: Job;
  parent: Setup;
  onAdded: (setup: Setup) => void;
  /** Whether N opens it. */
  hotkey: boolean;
  /** Begins with the line open, as where it is asked for. */
  asked?: boolean;
}

/** Begins a setup from another one with one line that says what changed, and what that is expected to give. */
export function NewSetup({ job, parent, onAdded, hotkey, asked = false }: NewSetupProps) {
  const place = `job/${job.id}/new-setup`;
  const [line, setLine] = useState<string | undefined>(() => (asked ? (draftOf(place) ?? '') : undefined));
  const [expected, setExpected] = useState('');
  const { power: powerUnit, write: told } = useOwnUnits();
  const write = (text: string | undefined) => {
    setLine(text);
    keepDraft(place, text || null);
  };
  const open = () => setLine((current) => current ?? draftOf(place) ?? '');
  useKeys(hotkey ? [{ keys: ['n'], shown: 'N', says: 'New setup', run: open }] : []);
  const items = readChange(line ?? '');
  const add = useChange(async (split: boolean) => {
    const typed = numberOf(expected) ?? null;
    const predictionKw = typed === null ? null : convert(typed, powerUnit, 'kW');
    const [only, ...more] = split ? items : [];
    if (!only) return api.addSetup(job.id, { parentId: parent.id, change: line ?? '', predictionKw });
    // One thing a step: each becomes a setup changed from the one before; the first of them is run first.
    const step = (from: number, item: SetupItem) =>
      api.addSetup(job.id, { parentId: from, change: told(itemSentence(item)), items: [item] });
    const first = await step(parent.id, only);
    let latest = first;
    for (const item of more) latest = await step(latest.id, item);
    return first;
  });
  const submit = (split: boolean) =>
    add.mutate(split, {
      onSuccess: (setup) => {
        write(undefined);
        setExpected('');
        onAdded(setup);
      },
    });
  if (line === undefined) {
    return (
      <button className={button.more} onClick={open}>
        + New setup from {parent.letter} {hotkey && <Keycap>N</Keycap>}
      </button>
    );
  }
  return (
    <form
      className={classes.form}
      onSubmit={(event) => {
        event.preventDefault();
        if (line.trim() !== '' && numberOf(expected) !== undefined) submit(false);
      }}
    >
      <TextInput
        label={`What changed from ${parent.letter}?`}
        placeholder="ignition +1.5° above 4,000"
        value={line}
        onChange={(event) => write(event.currentTarget.value)}
        onKeyDown={(event) => event.key === 'Escape' && setLine(undefined)}
        data-autofocus={!asked || undefined}
        autoFocus={!asked}
      />
      {items.length > 0 && (
        <small className="soft" role="status">
          {items.every(({ kind }) => kind === 'words')
            ? 'Kept as words.'
            : `Understood: ${items.map((item) => told(itemSentence(item))).join(' · ')}`}
        </small>
      )}
      {items.length > 1 && (
        <div className={classes.warning} role="alert">
          {items.length} things change in one step: what each of them gives cannot be told apart.
          <Button size="compact-md" variant="default" mt={6} loading={add.isPending} onClick={() => submit(true)}>
            Split into {items.length} steps
          </Button>
        </div>
      )}
      <TextInput
        label={`Expected to give${job.bands[0] ? `, ${job.bands[0].name}` : ''} (locked at its first run)`}
        placeholder="nothing written"
        inputMode="decimal"
        value={expected}
        error={numberOf(expected) === undefined}
        onChange={(event) => setExpected(event.currentTarget.value)}
        rightSection={<span className="soft">{powerUnit}</span>}
        rightSectionWidth={42}
      />
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
