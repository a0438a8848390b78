import { Autocomplete, Button, Group, Modal, Stack, Text, TextInput } from '@mantine/core';
import { useForm } from '@mantine/form';
import { useDebouncedValue } from '@mantine/hooks';
import { useNavigate } from 'react-router';
import { api } from '../../state/api.ts';
import { useVehicles } from '../../state/queries.ts';
import { useChange } from '../../state/use-change.ts';

/** A new job: only the vehicle must be named. One that was here before brings its owner and its history. */
export function NewJob({ opened, onClose }: { opened: boolean; onClose: () => void }) {
  const navigate = useNavigate();
  const add = useChange(api.addJob);
  const form = useForm({
    initialValues: { vehicle: '', owner: '', question: '', gear: '' },
    validate: { vehicle: (value) => (value.trim() ? null : 'Name the vehicle, as you would call it across the shop') },
  });
  const [asked] = useDebouncedValue(form.values.vehicle, 150);
  const { data: vehicles = [] } = useVehicles(opened ? asked : '');
  const known = vehicles.find((candidate) => candidate.name.toLowerCase() === form.values.vehicle.trim().toLowerCase());
  const submit = form.onSubmit(({ gear, ...values }) =>
    add.mutate(
      {
        ...values,
        // The car that was here before, unless another owner is named.
        ...(known && (values.owner === '' || values.owner === known.ownerName) ? { vehicleId: known.id } : {}),
        gear: gear.trim() || null,
      },
      {
        onSuccess: (job) => {
          form.reset();
          onClose();
          void navigate(`/jobs/${job.id}/brief`);
        },
      },
    ),
  );
  return (
    <Modal opened={opened} onClose={onClose} title="New job">
      <form onSubmit={submit}>
        <Stack gap={12}>
          <Autocomplete
            label="Vehicle"
            data-autofocus
            data={[...new Set(vehicles.slice(0, 8).map(({ name }) => name))]}
            {...form.getInputProps('vehicle')}
          />
          {known && (
            <Text size="sm" c="dimmed">
              Known: {known.ownerName || 'no owner'}
              {known.plate && `, ${known.plate}`}, {known.jobs} job{known.jobs === 1 ? '' : 's'} so far.
            </Text>
          )}
          <TextInput label="Owner" placeholder={known?.ownerName} {...form.getInputProps('owner')} />
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
