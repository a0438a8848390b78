import { keys } from '../../state/query-keys.ts';
import { Autocomplete, Button, Group, Modal, Stack, TextInput } from '@mantine/core';
import { useForm } from '@mantine/form';
import { useQuery } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import { api } from '../../state/api.ts';
import { useChange } from '../../state/use-change.ts';

/** Writes a vehicle down before it comes: only its name must be known. */
export function NewVehicle({ opened, onClose }: { opened: boolean; onClose: () => void }) {
  const navigate = useNavigate();
  const { data: owners = [] } = useQuery({ queryKey: keys.owners, queryFn: api.owners, enabled: opened });
  const add = useChange((fields: object) => api.addVehicle(fields));
  const form = useForm({
    initialValues: { name: '', plate: '', ownerName: '' },
    validate: { name: (name) => (name.trim() ? null : 'Name the vehicle, as you would call it across the shop') },
  });
  return (
    <Modal opened={opened} onClose={onClose} title="New vehicle">
      <form
        onSubmit={form.onSubmit(({ name, plate, ownerName }) =>
          add.mutate(
            { name: name.trim(), plate: plate.trim(), ...(ownerName.trim() && { ownerName: ownerName.trim() }) },
            { onSuccess: ({ id }) => void navigate(`/vehicles/${id}`) },
          ),
        )}
      >
        <Stack gap={12}>
          <TextInput label="Vehicle" data-autofocus {...form.getInputProps('name')} />
          <TextInput label="Plate" {...form.getInputProps('plate')} />
          <Autocomplete
            label="Owner"
            data={owners.map(({ name }) => name)}
            limit={6}
            {...form.getInputProps('ownerName')}
          />
          <Group justify="flex-end">
            <Button variant="subtle" color="gray" onClick={onClose}>
              Cancel
            </Button>
            <Button type="submit" loading={add.isPending}>
              Add
            </Button>
          </Group>
        </Stack>
      </form>
    </Modal>
  );
}
