import { Button, Checkbox, Group, NumberInput, Stack, Text } from '@mantine/core';
import { useState } from 'react';
import type { Job } from '../../../../contract/job/records.ts';
import { formatRpm } from '../../../../core/wording/figures.ts';
import type { ChangeView } from '../view/view.ts';
import type { JobFigures } from '../../../../core/figures/job-figures.ts';
import { bandWords, type CompareView, type ViewedBand } from '../view/view-address.ts';

interface BandChoiceProps {
  job: Job;
  figures: JobFigures;
  view: CompareView;
  change: ChangeView;
}

/** A band by its numbers, for those who would not drag on the axis. */
export function BandChoice({ job, figures, view, change }: BandChoiceProps) {
  const { comparison } = figures;
  const common = comparison && ([comparison.power.fromRpm, comparison.power.toRpm] as const);
  const [from, setFrom] = useState<number | string>(view.bands[0]?.fromRpm ?? common?.[0] ?? '');
  const [to, setTo] = useState<number | string>(view.bands[0]?.toRpm ?? common?.[1] ?? '');
  const usable = Number(to) > Number(from);
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        if (usable) change({ band: `${Math.round(Number(from))}-${Math.round(Number(to))}` });
      }}
    >
      <Stack gap={10}>
        <Text size="xs" c="dimmed">
          Choose the band that matters before looking at the gain in it: the best of many bands is luck. It can also be
          dragged on the speed axis.
        </Text>
        {job.bands.map((band) => (
          <Checkbox
            key={band.id}
            label={`${band.name}, ${formatRpm(band.fromRpm)}–${formatRpm(band.toRpm)} rpm`}
            checked={view.bands.some((one) => isSame(one, band))}
            onChange={({ currentTarget: { checked } }) => {
              const others = view.bands.filter((one) => !isSame(one, band));
              change({ band: bandWords(checked ? inOrder([...others, band], job) : others, job) });
            }}
          />
        ))}
        <Group grow>
          <NumberInput label="from, rpm" value={from} onChange={setFrom} min={0} max={30_000} step={100} />
          <NumberInput
            label="to, rpm"
            value={to}
            onChange={setTo}
            min={0}
            max={30_000}
            step={100}
            error={usable ? undefined : 'not above “from”'}
          />
        </Group>
        <Group justify="space-between">
          <Button variant="subtle" color="gray" size="sm" onClick={() => change({ band: bandWords([], job) })}>
            Common range
          </Button>
          <Button type="submit" variant="default" size="sm" disabled={!usable}>
            Use band
          </Button>
        </Group>
      </Stack>
    </form>
  );
}

const isSame = (a: ViewedBand, b: ViewedBand) => a.fromRpm === b.fromRpm && a.toRpm === b.toRpm;

/** The brief's bands in its own order, others after them. */
function inOrder(bands: readonly ViewedBand[], job: Job): ViewedBand[] {
  const place = (band: ViewedBand) => job.bands.findIndex((known) => isSame(known, band));
  return [...bands].sort((a, b) => (place(a) < 0 ? Infinity : place(a)) - (place(b) < 0 ? Infinity : place(b)));
}
