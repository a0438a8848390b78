import { keys } from '../../state/query-keys.ts';
import { Button, Modal, Stack, TextInput, Textarea } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import dayjs from 'dayjs';
import { useState } from 'react';
import type { ShiftNote } from '../../../contract/shop/shifts.ts';
import { useAccount } from '../../state/account.ts';
import { api } from '../../state/api.ts';
import { entriesOfShop } from '../../state/entries.ts';
import { usePreferences } from '../../state/preferences.ts';
import { FormFoot } from '../../ui/form-foot.tsx';
import classes from './shift-notes.module.css';

/** What was handed over and nobody has taken over yet; the last one that somebody has, for a look back. */
export function ShiftNotes({ nowMs }: { nowMs: number }) {
  const { data: notes = [] } = useQuery({ queryKey: keys.shiftNotes, queryFn: api.shiftNotes });
  const [looking, setLooking] = useState(false);
  const open = notes.filter(({ takenAt }) => takenAt === null);
  const last = notes.find(({ takenAt }) => takenAt !== null);
  if (open.length === 0 && !last) return null;
  return (
    <section aria-label="Handed over" className={classes.notes}>
      {open.map((note) => (
        <Note key={note.id} note={note} nowMs={nowMs} />
      ))}
      {open.length === 0 && last && (
        <>
          <button type="button" className={classes.last} aria-expanded={looking} onClick={() => setLooking(!looking)}>
            {last.takenBy ? `${last.takenBy} took over` : 'Taken over'} {when(last.takenAt ?? last.at, nowMs)}
          </button>
          {looking && <Words of={last} />}
        </>
      )}
    </section>
  );
}

const when = (moment: string, nowMs: number) =>
  dayjs(moment).format(dayjs(moment).isSame(nowMs, 'day') ? 'HH:mm' : 'ddd HH:mm');

function Words({ of: { text } }: { of: ShiftNote }) {
  return (
    <ul className={classes.words}>
      {text.split('\n').flatMap((line, at) => (line.trim() ? [<li key={`${at} ${line}`}>{line}</li>] : []))}
    </ul>
  );
}

function Note({ note, nowMs }: { note: ShiftNote; nowMs: number }) {
  const name = useOwnName();
  const take = () =>
    void entriesOfShop('shift-notes').change(note.id, {
      takenBy: name,
      takenAt: new Date().toISOString(),
      revision: note.revision,
    });
  return (
    <article className={classes.open}>
      <h2 className="heading">
        {note.handedBy ? `${note.handedBy} hands over` : 'Handed over'}, {when(note.at, nowMs)}
      </h2>
      <Words of={note} />
      <Button variant="default" size="sm" onClick={take}>
        I take over
      </Button>
    </article>
  );
}

/** The name of whoever works here: the account's, or the one that was typed in this browser last. */
function useOwnName(): string {
  const me = useAccount()?.me?.name;
  const typed = usePreferences((state) => state.ownName);
  return me ?? typed;
}

/** Hands a shift over: a draft from the day as it stands, and one's own words. */
export function HandOver({ opened, draft, onClose }: { opened: boolean; draft: string; onClose: () => void }) {
  return (
    <Modal opened={opened} onClose={onClose} title="Hand over to the next shift" size="lg">
      {opened && <Form draft={draft} onClose={onClose} />}
    </Modal>
  );
}

function Form({ draft, onClose }: { draft: string; onClose: () => void }) {
  const known = useOwnName();
  const signedIn = Boolean(useAccount()?.me);
  const [name, setName] = useState(known);
  const [text, setText] = useState(draft);
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        if (!signedIn) usePreferences.setState({ ownName: name.trim() });
        void entriesOfShop('shift-notes')
          .add({ text, handedBy: name.trim(), at: new Date().toISOString() })
          .then((stored) => stored && onClose());
      }}
    >
      <Stack gap={12}>
        <Textarea
          label="What the next shift must know"
          description="From the day as it stands. Add what nobody can see: a noise, a promise, what not to touch."
          autosize
          minRows={6}
          maxRows={16}
          data-autofocus
          value={text}
          onChange={(event) => setText(event.currentTarget.value)}
        />
        {!signedIn && (
          <TextInput label="Your name" value={name} onChange={(event) => setName(event.currentTarget.value)} />
        )}
        <FormFoot sends="Hand over" onCancel={onClose} />
      </Stack>
    </form>
  );
}
