import { Autocomplete, Button, Group, Modal, NativeSelect, NumberInput, Stack, Text, TextInput } from '@mantine/core';
import { useForm } from '@mantine/form';
import dayjs from 'dayjs';
import type { Booking, NewBooking } from '../../../contract/shop/day.ts';
import type { DayBay } from '../../../core/day/day-facts.ts';
import { api } from '../../state/api.ts';
import { useJobs } from '../../state/queries.ts';
import { useChange } from '../../state/use-change.ts';
import { FormFoot } from '../../ui/form-foot.tsx';
import { takeAway } from '../../state/undo.tsx';

interface BookingFormProps {
  /** A booking to change, or where and when a new one is likely; undefined: closed. */
  opened: Booking | { bay: number | null; startsAt: string } | undefined;
  bays: readonly DayBay[];
  onClose: () => void;
}

/** Kinds of work that a shop books, to choose from; any other can be written. */
const usualWork = [
  'baseline and setup',
  'part load',
  'verify, hand over',
  'cold start',
  'fit a part',
  'wait for a file',
];
const usualHours = 2;
const floor = 'floor';

/** Books a bay, or changes what is booked. */
export function BookingForm({ opened, bays, onClose }: BookingFormProps) {
  return (
    <Modal opened={opened !== undefined} onClose={onClose} title={opened && 'id' in opened ? 'Booking' : 'New booking'}>
      {opened && <Fields key={'id' in opened ? opened.id : 'new'} of={opened} bays={bays} onClose={onClose} />}
    </Modal>
  );
}

interface FieldsProps extends Pick<BookingFormProps, 'bays' | 'onClose'> {
  of: NonNullable<BookingFormProps['opened']>;
}

function Fields({ of, bays, onClose }: FieldsProps) {
  const known = 'id' in of ? of : undefined;
  const { data } = useJobs({ search: '', state: 'all', offset: 0 });
  const jobs = (data?.jobs ?? []).filter(({ state, id }) => state !== 'closed' || id === known?.jobId);
  const nameOf = (id: number) => {
    const job = jobs.find((one) => one.id === id);
    return job && `${job.vehicle}${job.owner && `, ${job.owner}`} (job ${job.id})`;
  };
  const startsAt = dayjs(of.startsAt);
  const endsAt = known ? dayjs(known.endsAt) : startsAt.add(usualHours, 'hour');
  const form = useForm({
    initialValues: {
      who: known?.title ?? '',
      work: known?.work ?? '',
      bay: of.bay === null ? floor : String(of.bay),
      day: startsAt.format('YYYY-MM-DD'),
      from: startsAt.format('HH:mm'),
      days: endsAt.startOf('day').diff(startsAt.startOf('day'), 'day'),
      to: endsAt.format('HH:mm'),
      every: '',
      times: 4,
    },
    validate: {
      who: (who) => (who.trim() || known?.jobId ? null : 'Say who or what comes, or choose a job'),
      to: (_, values) =>
        momentOf(values, values.days, values.to).isAfter(momentOf(values, 0, values.from))
          ? null
          : 'Ends before it begins',
    },
  });
  // The name of its job is known once the list is there.
  const who = form.values.who || (known?.jobId ? (nameOf(known.jobId) ?? '') : '');
  const jobOf = (text: string) => jobs.find(({ id }) => nameOf(id) === text)?.id ?? null;
  const save = useChange(async (fields: NewBooking): Promise<unknown> => {
    if (!known) return api.addBookings(fields);
    const { repeat: _repeat, ...change } = fields;
    return api.changeBooking(known.id, { ...change, revision: known.revision });
  });
  const begin = useChange(async ({ vehicle, booking }: { vehicle: string; booking: Booking }) => {
    const job = await api.addJob({ vehicle, owner: '', question: '', gear: null });
    await api.changeBooking(booking.id, { jobId: job.id, title: '' });
  });
  const submit = form.onSubmit((values) => {
    const jobId = jobOf(who) ?? (values.who === '' ? (known?.jobId ?? null) : null);
    save.mutate(
      {
        jobId,
        title: jobId === null ? who.trim() : '',
        work: values.work.trim(),
        bay: values.bay === floor ? null : Number(values.bay),
        startsAt: momentOf(values, 0, values.from).toISOString(),
        endsAt: momentOf(values, values.days, values.to).toISOString(),
        repeat: values.every === '' ? null : { every: values.every as 'day' | 'week', times: values.times },
      },
      { onSuccess: onClose },
    );
  });
  return (
    <form onSubmit={submit}>
      <Stack gap={12}>
        <Autocomplete
          label="Job, or who comes"
          placeholder="e.g. the blue coupé of Mr Sorrel"
          data-autofocus
          data={jobs.flatMap(({ id }) => nameOf(id) ?? [])}
          limit={8}
          comboboxProps={{ withinPortal: true }}
          {...form.getInputProps('who')}
          value={who}
        />
        <Autocomplete
          label="Work"
          placeholder="e.g. boost in steps"
          data={usualWork}
          limit={6}
          {...form.getInputProps('work')}
        />
        <NativeSelect
          label="Where"
          data={[
            ...bays.map(({ bay, name }) => ({ value: String(bay), label: name })),
            { value: floor, label: 'Floor, no dyno' },
          ]}
          {...form.getInputProps('bay')}
        />
        <Group grow align="start">
          <TextInput label="Day" type="date" required {...form.getInputProps('day')} />
          <TextInput label="From" type="time" required {...form.getInputProps('from')} />
          <TextInput label="To" type="time" required {...form.getInputProps('to')} />
        </Group>
        <NumberInput label="Ends so many days later" min={0} max={30} {...form.getInputProps('days')} />
        {!known && (
          <Group grow align="end">
            <NativeSelect
              label="Repeat"
              data={[
                { value: '', label: 'once' },
                { value: 'day', label: 'every day' },
                { value: 'week', label: 'every week' },
              ]}
              {...form.getInputProps('every')}
            />
            {form.values.every !== '' && (
              <NumberInput label="Times in all" min={2} max={52} {...form.getInputProps('times')} />
            )}
          </Group>
        )}
        {known && known.jobId === null && (
          <Text size="sm">
            No job is begun for it yet.{' '}
            <Button
              variant="default"
              size="sm"
              loading={begin.isPending}
              onClick={() => begin.mutate({ vehicle: known.title, booking: known }, { onSuccess: onClose })}
            >
              Begin the job
            </Button>
          </Text>
        )}
        <FormFoot
          sends={known ? 'Save' : 'Book'}
          isSending={save.isPending}
          onCancel={onClose}
          removes={known && <RemoveBooking booking={known} onClose={onClose} />}
        />
      </Stack>
    </form>
  );
}

const momentOf = ({ day }: { day: string }, daysLater: number, time: string) =>
  dayjs(`${day}T${time || '00:00'}`).add(daysLater, 'day');

function RemoveBooking({ booking, onClose }: { booking: Booking; onClose: () => void }) {
  const remove = (rest: boolean) => {
    onClose();
    void takeAway(rest ? 'The bookings are' : 'The booking is', () => api.removeBooking(booking.id, rest));
  };
  return (
    <Group gap={8}>
      <Button variant="default" onClick={() => remove(false)}>
        Remove
      </Button>
      {booking.series && (
        <Button variant="default" onClick={() => remove(true)}>
          Remove this and later ones
        </Button>
      )}
    </Group>
  );
}
