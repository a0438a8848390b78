import { Button, Group, Slider, Stack, Switch, Text } from '@mantine/core';
import { spanLimits, type Span } from '../../../../core/smoothing/span.ts';
import { formatSpan } from '../../../../core/wording/figures.ts';
import type { ChangeView } from '../view/view.ts';

const widestSpan = 600;

/** The span by hand, or auto. */
export function SmoothingChoice({
  span,
  auto,
  raw,
  takenOff,
  change,
}: {
  span: Span;
  auto: boolean;
  raw: boolean;
  /** What smoothing took off the peaks, in words. */
  takenOff: string | undefined;
  change: ChangeView;
}) {
  const set = (rpm: number) => change({ smoothing: rpm, span: undefined });
  const [least, most] = spanLimits(span);
  return (
    <Stack gap={12}>
      <Text size="sm">
        Each point is fitted over this span of engine speed: <b className="number">{formatSpan(span)}</b>
        {least < most && ', narrow where the curve bends sharply, wide where it does not'}
      </Text>
      <Slider
        thumbLabel="Smoothing span"
        value={Math.min(widestSpan, most)}
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
      {takenOff && (
        <Text size="xs" c="dimmed">
          {takenOff}
        </Text>
      )}
      <Switch
        label="Show the unsmoothed points"
        checked={raw}
        onChange={(event) => change({ raw: event.currentTarget.checked ? 1 : undefined })}
      />
      <Group justify="space-between" wrap="nowrap">
        <Text size="xs" c="dimmed">
          {auto
            ? 'Auto, found on the baseline’s runs and kept.'
            : 'Auto finds the span with the least error on the baseline’s runs.'}
        </Text>
        <Button variant="default" size="sm" flex="none" onClick={() => change({ smoothing: 'auto', span: undefined })}>
          {auto ? 'Recalculate' : 'Auto'}
        </Button>
      </Group>
    </Stack>
  );
}
