import { fetchWhatChanged } from '../../state/what-changed.ts';
import { Button, FileButton, Group, Modal, NativeSelect, NumberInput, Stack, TextInput } from '@mantine/core';
import { useForm } from '@mantine/form';
import { useMutation } from '@tanstack/react-query';
import { equipmentKinds, type Equipment } from '../../../contract/shop/equipment.ts';
import { api } from '../../state/api.ts';
import { entriesOfShop } from '../../state/entries.ts';
import { useLive } from '../../state/live.ts';
import { tellProblem } from '../../state/queries.ts';
import { FormFoot } from '../../ui/form-foot.tsx';
import { takeAway } from '../../state/undo.tsx';
import classes from './equipment-form.module.css';
import { useEquipment } from '../../equipment/use-equipment.ts';

/** New equipment, or what is known of one. */
export function EquipmentForm({ opened, onClose }: { opened: Equipment | 'new' | undefined; onClose: () => void }) {
  return (
    <Modal opened={opened !== undefined} onClose={onClose} title={opened === 'new' ? 'New equipment' : 'Equipment'}>
      {opened && <Fields key={opened === 'new' ? 'new' : opened.id} of={opened} onClose={onClose} />}
    </Modal>
  );
}

function Fields({ of, onClose }: { of: Equipment | 'new'; onClose: () => void }) {
  const known = of === 'new' ? undefined : of;
  const bays = useLive((live) => live.bays);
  const devices = bays.flatMap((bay) => bay.devices.map(({ device, name }) => ({ value: device, label: name })));
  const form = useForm({
    initialValues: {
      name: known?.name ?? '',
      kind: known?.kind ?? 'probe',
      serial: known?.serial ?? '',
      what: known?.what ?? '',
      lastOn: known?.lastOn ?? '',
      everyDays: (known?.everyDays ?? '') as number | '',
      dueOn: known?.dueOn ?? '',
      device: known?.device ?? '',
      note: known?.note ?? '',
    },
    validate: { name: (name) => (name.trim() ? null : 'Name it') },
  });
  const entries = entriesOfShop('equipment');
  const submit = form.onSubmit(async ({ lastOn, everyDays, dueOn, ...words }) => {
    const fields = {
      ...words,
      lastOn: lastOn || null,
      everyDays: everyDays === '' ? null : everyDays,
      dueOn: dueOn || null,
    };
    if (await (known ? entries.change(known.id, { ...fields, revision: known.revision }) : entries.add(fields)))
      onClose();
  });
  return (
    <form onSubmit={submit}>
      <Stack gap={12}>
        <TextInput label="Name" placeholder="e.g. λ probe 2" data-autofocus {...form.getInputProps('name')} />
        <Group grow>
          <NativeSelect label="Kind" data={[...equipmentKinds]} {...form.getInputProps('kind')} />
          <TextInput label="Number" placeholder="e.g. 0441-B" {...form.getInputProps('serial')} />
        </Group>
        <TextInput label="What is done" placeholder="e.g. free-air check" {...form.getInputProps('what')} />
        <Group grow align="start">
          <TextInput label="Last done" type="date" {...form.getInputProps('lastOn')} />
          <NumberInput label="Every, days" min={1} max={7300} {...form.getInputProps('everyDays')} />
          <TextInput label="Due" description="instead of the interval" type="date" {...form.getInputProps('dueOn')} />
        </Group>
        {devices.length > 0 && (
          <NativeSelect
            label="Instrument"
            description="Its calibration in Devices tells the date, too."
            data={[
              { value: '', label: 'none' },
              ...devices.filter(({ value }, at) => devices.findIndex((other) => other.value === value) === at),
            ]}
            {...form.getInputProps('device')}
          />
        )}
        <TextInput label="Note" {...form.getInputProps('note')} />
        {known && <Files of={known} />}
        <FormFoot
          sends={known ? 'Save' : 'Add'}
          onCancel={onClose}
          removes={
            known && (
              <Button
                variant="default"
                onClick={() => {
                  onClose();
                  void entries.remove('Equipment', known.id);
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

/** Its certificates, the last first. */
function Files({ of }: { of: Equipment }) {
  const { data } = useEquipment();
  const files = data?.find(({ id }) => id === of.id)?.files ?? of.files;
  const add = useMutation({
    mutationFn: (file: File) => api.addEquipmentFile(of.id, file),
    onSuccess: fetchWhatChanged,
    onError: tellProblem,
  });
  return (
    <div>
      <ul className={classes.files} aria-label="Certificates">
        {files.map(({ id, name }) => (
          <li key={id}>
            <a href={`/api/equipment-files/${id}/content`} download={name}>
              {name}
            </a>
            <Button
              variant="subtle"
              color="gray"
              size="compact-sm"
              aria-label={`Remove ${name}`}
              onClick={() => void takeAway('The certificate is', () => api.removeEntry('equipment-files', id))}
            >
              Remove
            </Button>
          </li>
        ))}
      </ul>
      <FileButton
        accept="application/pdf,image/jpeg,image/png,image/webp"
        inputProps={{ 'aria-label': 'Certificate' }}
        onChange={(file) => file && add.mutate(file)}
      >
        {(props) => (
          <Button variant="default" size="sm" loading={add.isPending} {...props}>
            Add a certificate
          </Button>
        )}
      </FileButton>
    </div>
  );
}
