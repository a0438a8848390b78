import { Button, Group, Modal, SegmentedControl, Stack, Text, Textarea, TextInput } from '@mantine/core';
import { useForm } from '@mantine/form';
import type { Job } from '../../../../contract/records.ts';
import { readCurvePoints } from '../../../../core/exchange/curve-points.ts';
import { Refusal } from '../../../../core/refusal.ts';
import { powerUnits, type PowerUnit } from '../../../../core/units/units.ts';
import { api } from '../../../state/api.ts';
import { queryClient, tellProblem } from '../../../state/queries.ts';
import { usePreferences } from '../../../state/preferences.ts';

interface BorrowCurveProps {
  job: Job;
  opened: boolean;
  onClose: () => void;
  onBorrowed: (id: number) => void;
}

/** Takes in a power curve from elsewhere: its points pasted, its origin said. */
export function BorrowCurve({ job, opened, onClose, onBorrowed }: BorrowCurveProps) {
  const { powerUnit } = usePreferences();
  const form = useForm({
    initialValues: { name: '', origin: '', scale: 'wheels', unit: powerUnit as PowerUnit, points: '' },
    validate: {
      name: (text) => (text.trim() === '' ? 'Name the curve.' : null),
      origin: (text) =>
        text.trim() === '' ? 'Say where it comes from: a curve of unknown origin is worth nothing.' : null,
      points: (text, { unit }) => {
        try {
          readCurvePoints(text, unit);
          return null;
        } catch (error) {
          if (error instanceof Refusal) return error.message;
          throw error;
        }
      },
    },
  });
  const borrow = form.onSubmit(async ({ name, origin, scale, unit, points }) => {
    try {
      const { id } = await api.addEntry('jobs', job.id, 'borrowed-curves', { name, origin, scale, points: readCurvePoints(points, unit) }); // prettier-ignore
      await queryClient.invalidateQueries();
      form.reset();
      onClose();
      onBorrowed(id);
    } catch (error) {
      tellProblem(error as Error);
    }
  });
  return (
    <Modal opened={opened} onClose={onClose} title="Borrow a curve" size="md">
      <form onSubmit={(event) => void borrow(event)}>
        <Stack gap={14}>
          <Text size="sm" c="dimmed">
            For orientation: a maker’s sheet, a like car’s norm, another shop’s reading. It is drawn dashed, with its
            origin, and no verdict is made on it.
          </Text>
          <TextInput label="Name" placeholder="maker’s sheet" data-autofocus {...form.getInputProps('name')} />
          <TextInput
            label="Where it comes from"
            placeholder="brochure of the year, read off the printed curve"
            {...form.getInputProps('origin')}
          />
          <Group grow>
            <SegmentedControl
              aria-label="Told at"
              data={[
                { value: 'wheels', label: 'at the wheels' },
                { value: 'crank', label: 'at the crank' },
              ]}
              {...form.getInputProps('scale')}
            />
            <SegmentedControl aria-label="Unit of its power" data={[...powerUnits]} {...form.getInputProps('unit')} />
          </Group>
          <Textarea
            label="Its points: engine speed and power, a pair a line"
            placeholder={'2000  28\n3000  47\n4000  70'}
            autosize
            minRows={6}
            maxRows={14}
            {...form.getInputProps('points')}
          />
          <Group justify="flex-end">
            <Button variant="default" onClick={onClose}>
              Cancel
            </Button>
            <Button type="submit">Lay it beside</Button>
          </Group>
        </Stack>
      </form>
    </Modal>
  );
}
