import { ActionIcon, Popover, TextInput } from '@mantine/core';
import { IconPencil } from '@tabler/icons-react';
import { useState } from 'react';
import { useKeys } from '../keys/use-keys.ts';
import { draftOf, keepDraft } from '../state/drafts.ts';
import { entriesOf } from '../state/entries.ts';

/** A line for the job's timeline from wherever one is. W opens it, except where letters belong to a run's note. */
export function NoteLine({ jobId, hotkey }: { jobId: number; hotkey: boolean }) {
  const place = `job/${jobId}/note`;
  const [opened, setOpened] = useState(false);
  const [text, setText] = useState('');
  const show = () => {
    setText(draftOf(place) ?? '');
    setOpened(true);
  };
  useKeys(hotkey ? [{ keys: ['w'], shown: 'W', says: 'Write a line into the timeline', run: show }] : []);
  const write = (next: string) => {
    setText(next);
    keepDraft(place, next || null);
  };
  return (
    <Popover opened={opened} onChange={setOpened} width={340} position="bottom-end" shadow="md" trapFocus>
      <Popover.Target>
        <ActionIcon
          variant="subtle"
          color="gray"
          size={40}
          aria-label="Write a line into the timeline"
          title="Write a line into the timeline (W)"
          onClick={show}
        >
          <IconPencil size={18} />
        </ActionIcon>
      </Popover.Target>
      <Popover.Dropdown>
        <form
          onSubmit={(event) => {
            event.preventDefault();
            if (text.trim() === '') return;
            void entriesOf('jobs', jobId, 'notes')
              .add({ text, at: new Date().toISOString() })
              .then((stored) => {
                if (!stored) return;
                write('');
                setOpened(false);
              });
          }}
        >
          <TextInput
            label="A line for the timeline"
            placeholder="as it happens; Enter stores it"
            value={text}
            data-autofocus
            onChange={(event) => write(event.currentTarget.value)}
          />
        </form>
      </Popover.Dropdown>
    </Popover>
  );
}
