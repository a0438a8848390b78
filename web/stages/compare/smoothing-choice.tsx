import { Button, Group, Slider, Stack, Text } from '@mantine/core';
import { formatWhole } from '../../ui/figures.ts';
import type { ChangeView } from './view.ts';

const widestSpan = 600;

/** The span by hand, or auto. */
export function SmoothingChoice({ spanRpm, auto, change }: { spanRpm: number; auto: boolean; change: ChangeView }) {
  const set = (span: number) => change({ smoothing: span, span: undefined });
  return (
    <Stack gap={12} w={300}>
      <Text size="sm">
        Each point is fitted over this span of engine speed: <b className="number">{formatWhole(spanRpm)} rpm</b>
      </Text>
      <Slider
        thumbLabel="Smoothing span"
        value={spanRpm}
        onChange={set}
        min={0}
        max={widestSpan}
        step={10}
        label={null}
        mb={18}
        marks={[
          { value: 0, label: 'none' },
          { value: widestSpan, label: `${widestSpan} rpm` },
        ]}
      />
      <Group justify="space-between" wrap="nowrap">
        <Text size="xs" c="dimmed">
          {auto
            ? 'Auto, found on the baseline’s runs and kept.'
            : 'Auto finds the span with the least error on the baseline’s runs.'}
        </Text>
        <Button variant="default" size="sm" flex="none" onClick={() => change({ smoothing: 'auto', span: undefined })}>
          {auto ? 'Find anew' : 'Auto'}
        </Button>
      </Group>
    </Stack>
  );
}
