import { Button, CloseButton, Group, Popover, TextInput } from '@mantine/core';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { Job } from '../../../../contract/job/records.ts';
import { entriesOf } from '../../../state/entries.ts';
import button from '../../../ui/text-button.module.css';

/** Looks at the comparison that were given a name: each is an address, and shows the same figures again. */
export function SavedViews({ job }: { job: Job }) {
  const [opened, setOpened] = useState(false);
  const [name, setName] = useState('');
  const navigate = useNavigate();
  const entries = entriesOf('jobs', job.id, 'views');
  return (
    <Popover opened={opened} onChange={setOpened} width={300} position="bottom-end" shadow="md" trapFocus>
      <Popover.Target>
        <button className={button.act} onClick={() => setOpened(!opened)}>
          Views{job.views.length > 0 && ` (${job.views.length})`}
        </button>
      </Popover.Target>
      <Popover.Dropdown>
        {job.views.map((view) => (
          <Group key={view.id} justify="space-between" wrap="nowrap" gap={6}>
            <button
              className={button.act}
              onClick={() => {
                setOpened(false);
                void navigate(view.address);
              }}
            >
              {view.name}
            </button>
            <CloseButton
              aria-label={`Take the view ${view.name} away`}
              onClick={() => void entries.remove(`The view ${view.name}`, view.id)}
            />
          </Group>
        ))}
        <form
          onSubmit={(event) => {
            event.preventDefault();
            if (name.trim() === '') return;
            void entries.add({ name, address: window.location.search || '?' }).then((stored) => {
              if (stored) setName('');
            });
          }}
        >
          <TextInput
            label="Name what is shown now"
            placeholder="street, band 3,000 to 4,500"
            value={name}
            data-autofocus
            onChange={(event) => setName(event.currentTarget.value)}
          />
          <Button type="submit" variant="default" size="md" mt={8} disabled={name.trim() === ''}>
            Keep it
          </Button>
        </form>
      </Popover.Dropdown>
    </Popover>
  );
}
