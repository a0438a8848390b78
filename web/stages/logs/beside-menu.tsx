import { Button, Checkbox, Popover, Stack, Text } from '@mantine/core';
import type { Job } from '../../../contract/job/records.ts';
import { setupWords } from '../../../core/setup/setup-words.ts';
import { besideOf, endedRuns, meanRuns, type LabelledRun } from './view/beside.ts';
import { mostBeside, type LogsView } from './view/log-address.ts';
import type { ChangeLogsView } from './view/use-logs-view.ts';

interface BesideMenuProps {
  job: Job;
  run: LabelledRun;
  view: LogsView;
  change: ChangeLogsView;
}

/** What is laid beside the run: up to two other runs, or setups as the mean of their runs. */
export function BesideMenu({ job, run, view, change }: BesideMenuProps) {
  const shown = besideOf(job, run, view.beside).map(({ label }) => label);
  const toggle = (name: string) =>
    change({
      beside: shown.includes(name) ? shown.filter((other) => other !== name) : [...shown, name].slice(-mostBeside),
    });
  const runs = endedRuns(job).filter(({ id }) => id !== run.id);
  return (
    <Popover width={320} position="bottom-end" shadow="md" trapFocus>
      <Popover.Target>
        <Button variant="default" size="xs">
          {shown.length > 0 ? `Beside ${shown.join(' and ')}` : 'Beside nothing'}
        </Button>
      </Popover.Target>
      <Popover.Dropdown mah={460} style={{ overflowY: 'auto' }}>
        <Text size="xs" c="dimmed" mb={8}>
          Up to two; a third takes the place of the first. Differences are taken from the first.
        </Text>
        <Stack gap={10}>
          {job.setups.map((setup) => {
            const own = runs.filter(({ setupId }) => setupId === setup.id);
            const mean = meanRuns(job, setup.id);
            if (own.length === 0 && mean.length === 0) return null;
            return (
              <Stack key={setup.id} gap={6}>
                <Text size="sm" fw={600}>
                  {setup.letter}, {setupWords(job.setups, setup)}
                </Text>
                {mean.length > 1 && (
                  <Checkbox
                    label={`mean of its ${mean.length} runs`}
                    checked={shown.includes(setup.letter)}
                    onChange={() => toggle(setup.letter)}
                  />
                )}
                {own.map(({ id, label }) => (
                  <Checkbox key={id} label={label} checked={shown.includes(label)} onChange={() => toggle(label)} />
                ))}
              </Stack>
            );
          })}
        </Stack>
      </Popover.Dropdown>
    </Popover>
  );
}
