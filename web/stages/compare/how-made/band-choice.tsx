import { Button, Group, NumberInput, Stack, Text } from '@mantine/core';
import { useState } from 'react';
import type { Job } from '../../../../contract/records.ts';
import { formatRpm } from '../../../ui/figures.ts';
import type { ChangeView } from '../view/view.ts';
import type { JobFigures } from '../../../../core/figures/job-figures.ts';
import type { CompareView } from '../view/view-address.ts';

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
  const [from, setFrom] = useState<number | string>(view.band?.[0] ?? common?.[0] ?? '');
  const [to, setTo] = useState<number | string>(view.band?.[1] ?? common?.[1] ?? '');
  const usable = Number(to) > Number(from);
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        if (usable) change({ band: `${Math.round(Number(from))}-${Math.round(Number(to))}` });
      }}
    >
      <Stack gap={10} w={260}>
        <Text size="xs" c="dimmed">
          Choose the band that matters before looking at the gain in it: the best of many bands is luck. It can also be
          dragged on the speed axis.
        </Text>
        {job.bands.map((band) => (
          <Button
            key={band.id}
            variant="default"
            size="sm"
            justify="space-between"
            onClick={() => change({ band: `${band.fromRpm}-${band.toRpm}` })}
            rightSection={
              <span className="number soft">
                {formatRpm(band.fromRpm)}–{formatRpm(band.toRpm)}
              </span>
            }
          >
            {band.name}
          </Button>
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
          <Button variant="subtle" color="gray" size="sm" onClick={() => change({ band: undefined })}>
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
