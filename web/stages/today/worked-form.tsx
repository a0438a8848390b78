import { Button, Group, Modal, Stack, Text, TextInput } from '@mantine/core';
import { useForm } from '@mantine/form';
import dayjs from 'dayjs';
import type { Day } from '../../../contract/shop/day.ts';
import type { WorkedStretch } from '../../../core/day/worked-stretches.ts';
import { FormFoot } from '../../ui/form-foot.tsx';
import { entriesOf } from '../../state/entries.ts';

interface WorkedFormProps {
  stretch: WorkedStretch | undefined;
  day: Day | undefined;
  vehicle: string;
  onClose: () => void;
}

/** Puts right by hand when a job was worked on; what its acts tell stays stored. */
export function WorkedForm({ stretch, day, vehicle, onClose }: WorkedFormProps) {
  return (
    <Modal opened={stretch !== undefined} onClose={onClose} title={`Time worked, ${vehicle}`}>
      {stretch && <Fields stretch={stretch} day={day} onClose={onClose} />}
    </Modal>
  );
}

function Fields({ stretch, day, onClose }: { stretch: WorkedStretch; day: Day | undefined; onClose: () => void }) {
  const { jobId, bay, fromMs, toMs, kind, why, byHand } = stretch;
  const entry = day?.workTimes.find(
    (time) => time.jobId === jobId && time.bay === bay && Date.parse(time.startsAt) === fromMs,
  );
  const times = entriesOf('jobs', jobId, 'work-times');
  const form = useForm({
    initialValues: {
      from: dayjs(fromMs).format('YYYY-MM-DDTHH:mm'),
      to: dayjs(toMs).format('YYYY-MM-DDTHH:mm'),
      why: byHand ? why : '',
    },
    validate: {
      why: (value) => (value.trim() ? null : 'Say why it is put right by hand'),
      to: (to, { from }) => (dayjs(to).isAfter(dayjs(from)) ? null : 'Ends before it begins'),
    },
  });
  return (
    <form
      onSubmit={form.onSubmit(async ({ from, to, why: reason }) => {
        const fields = {
          bay,
          startsAt: dayjs(from).toISOString(),
          endsAt: dayjs(to).toISOString(),
          why: reason.trim(),
        };
        if (await (entry ? times.change(entry.id, fields) : times.add(fields))) onClose();
      })}
    >
      <Stack gap={12}>
        <Text size="sm" c="dimmed">
          {byHand
            ? 'Put right by hand. Removed, what its runs and pauses tell stands again.'
            : kind === 'pause'
              ? 'It rested here: from a pause to what followed it.'
              : 'As its first and last run tell it. What you write stands in its place for this bay.'}
        </Text>
        <Group grow>
          <TextInput label="From" type="datetime-local" required {...form.getInputProps('from')} />
          <TextInput label="To" type="datetime-local" required {...form.getInputProps('to')} />
        </Group>
        <TextInput
          label="Why"
          placeholder="e.g. mounted and strapped from 8:15 on"
          data-autofocus
          {...form.getInputProps('why')}
        />
        <FormFoot
          sends="Save"
          onCancel={onClose}
          removes={
            entry && (
              <Button
                variant="default"
                onClick={() => {
                  onClose();
                  void times.remove('The time put right by hand is', entry.id);
                }}
              >
                Remove
              </Button>
            )
          }
        />
      </Stack>
    </form>
  );
}
