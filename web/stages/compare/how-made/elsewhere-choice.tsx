import { Button, CloseButton, Group, Radio, Select, Stack, Text } from '@mantine/core';
import { useDebouncedValue, useDisclosure } from '@mantine/hooks';
import { useState } from 'react';
import type { Job } from '../../../../contract/job/records.ts';
import { entriesOf } from '../../../state/entries.ts';
import { useJob, useJobs, useVehicle } from '../../../state/queries.ts';
import { BorrowCurve } from './borrow/borrow-curve.tsx';
import { guestNamed, guestSetup, guestSetups } from '../view/use-elsewhere.ts';
import type { ChangeView } from '../view/view.ts';
import type { CompareView } from '../view/view-address.ts';

const day = (moment: string) => new Date(moment).toLocaleDateString('en-GB', { dateStyle: 'medium' });

/** What a setup can be compared with that is not of this job: another visit, another vehicle, a borrowed curve. */
export function ElsewhereChoice({ job, view, change }: { job: Job; view: CompareView; change: ChangeView }) {
  const [opened, borrow] = useDisclosure(false);
  const from = (value: string) => change({ from: value, runs: undefined, againstRuns: undefined });
  const { data: car } = useVehicle(job.vehicleId);
  const visits = (car?.jobs ?? []).filter(({ id, runs }) => id !== job.id && runs > 0);
  const curves = entriesOf('jobs', job.id, 'borrowed-curves');
  const { jobId: guestId } = guestNamed(view);
  return (
    <Stack gap={14}>
      {visits.length > 0 && (
        <Radio.Group
          label="This vehicle’s other visits"
          value={guestId === undefined ? '' : String(guestId)}
          onChange={from}
        >
          <Stack gap={8} mt={6}>
            {visits.map(({ id, question, lastRunAt, createdAt }) => (
              <Radio
                key={id}
                value={String(id)}
                label={`Job ${id}, ${day(lastRunAt ?? createdAt)}`}
                description={question}
              />
            ))}
          </Stack>
        </Radio.Group>
      )}
      <OtherJob job={job} chosen={guestId} onChoose={from} />
      {guestId !== undefined && <GuestSetup id={guestId} view={view} onChoose={from} />}
      {job.borrowedCurves.length > 0 && (
        <Radio.Group label="Borrowed curves" value={view.from ?? ''} onChange={from}>
          <Stack gap={8} mt={6}>
            {job.borrowedCurves.map(({ id, name, origin }) => (
              <Group key={id} justify="space-between" wrap="nowrap" align="flex-start">
                <Radio value={`curve-${id}`} label={name} description={origin} />
                <CloseButton
                  aria-label={`Take the curve ${name} away`}
                  onClick={() => void curves.remove(`The curve ${name}`, id)}
                />
              </Group>
            ))}
          </Stack>
        </Radio.Group>
      )}
      <Button variant="default" size="sm" onClick={borrow.open}>
        Borrow a curve…
      </Button>
      <BorrowCurve job={job} opened={opened} onClose={borrow.close} onBorrowed={(id) => from(`curve-${id}`)} />
      <Text size="xs" c="dimmed">
        What comes from elsewhere is marked with its origin and never counts among this job’s own gains.
      </Text>
    </Stack>
  );
}

/** Any other job, found by what it says. */
function OtherJob({ job, chosen, onChoose }: { job: Job; chosen: number | undefined; onChoose: (id: string) => void }) {
  const [search, setSearch] = useState('');
  const [wanted] = useDebouncedValue(search, 250);
  const { data } = useJobs({ search: wanted, state: 'all', offset: 0 });
  const found = (data?.jobs ?? []).filter(
    ({ id, runs, vehicleId }) => id !== job.id && vehicleId !== job.vehicleId && runs > 0,
  );
  return (
    <Select
      label="Another vehicle’s job"
      placeholder="vehicle, owner, question"
      searchable
      filter={({ options }) => options}
      nothingFoundMessage="No other job with a run"
      data={found.map(({ id, vehicle }) => ({ value: String(id), label: `${vehicle}, job ${id}` }))}
      value={found.some(({ id }) => id === chosen) ? String(chosen) : null}
      searchValue={search}
      onSearchChange={setSearch}
      onChange={(id) => id && onChoose(id)}
    />
  );
}

/** Which of the other job's setups. */
function GuestSetup({ id, view, onChoose }: { id: number; view: CompareView; onChoose: (from: string) => void }) {
  const { data: other } = useJob(id);
  const offered = other ? guestSetups(other) : [];
  if (!other || offered.length < 2) return null;
  return (
    <Radio.Group
      label="Its setup"
      value={guestSetup(other, guestNamed(view).letter)?.letter ?? ''}
      onChange={(letter) => onChoose(`${id}.${letter}`)}
    >
      <Stack gap={8} mt={6}>
        {offered.map(({ letter, change }) => (
          <Radio key={letter} value={letter} label={`${letter}, ${change}`} />
        ))}
      </Stack>
    </Radio.Group>
  );
}
