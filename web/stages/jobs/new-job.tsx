import { Button, Group, Modal, Stack, TextInput } from '@mantine/core';
import { useForm } from '@mantine/form';
import { useNavigate } from 'react-router';
import { api } from '../../state/api.ts';
import { useChange } from '../../state/queries.ts';

/** A new job: only the vehicle must be named. */
export function NewJob({ opened, onClose }: { opened: boolean; onClose: () => void }) {
  const navigate = useNavigate();
  const add = useChange(api.addJob);
  const form = useForm({
    initialValues: { vehicle: '', owner: '', question: '', gear: '' },
    validate: { vehicle: (value) => (value.trim() ? null : 'Name the vehicle, as you would call it across the shop') },
  });
  const submit = form.onSubmit((values) =>
    add.mutate(
      { ...values, gear: values.gear.trim() || null },
      {
        onSuccess: (job) => {
          form.reset();
          onClose();
          void navigate(`/jobs/${job.id}/record`);
        },
      },
    ),
  );
  return (
    <Modal opened={opened} onClose={onClose} title="New job">
      <form onSubmit={submit}>
        <Stack gap={12}>
          <TextInput label="Vehicle" data-autofocus {...form.getInputProps('vehicle')} />
          <TextInput label="Owner" {...form.getInputProps('owner')} />
          <TextInput
            label="The question"
            placeholder="What does the owner want to know?"
            {...form.getInputProps('question')}
          />
          <TextInput label="Gear" placeholder="the one nearest 1:1, such as 4th" {...form.getInputProps('gear')} />
          <Group justify="flex-end">
            <Button variant="subtle" color="gray" onClick={onClose}>
              Cancel
            </Button>
            <Button type="submit" loading={add.isPending}>
              Begin
            </Button>
          </Group>
        </Stack>
      </form>
    </Modal>
  );
}
