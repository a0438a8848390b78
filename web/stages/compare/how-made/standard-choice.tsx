import { Radio, Slider, Stack, Text } from '@mantine/core';
import { standardIds, standards, type StandardId } from '../../../../core/air/correction.ts';
import { remember } from '../../../state/preferences.ts';
import type { ChangeView } from '../view/view.ts';
import type { CompareView } from '../view/view-address.ts';

/** The correction standard, and how much of its correction is applied. */
export function StandardChoice({ view, change }: { view: CompareView; change: ChangeView }) {
  return (
    <Stack gap={14}>
      <Radio.Group
        value={view.standard}
        onChange={(standard) => remember({ standard: standard as StandardId }, () => change({ standard }))}
        aria-label="Correction standard"
      >
        <Stack gap={9}>
          {standardIds.map((id) => (
            <Radio key={id} value={id} label={standards[id].name} description={standards[id].reference} />
          ))}
        </Stack>
      </Radio.Group>
      <div>
        <Text size="sm" fw={600}>
          Share of the correction that is applied
        </Text>
        <Text size="xs" c="dimmed" mb={6}>
          Less than 100 % for an engine that holds its boost to a target.
        </Text>
        <Slider
          thumbLabel="Share of the correction"
          value={view.share * 100}
          onChange={(share) => change({ share: share === 100 ? undefined : share })}
          step={5}
          label={(share) => `${share} %`}
          mb={18}
          marks={[
            { value: 0, label: '0' },
            { value: 100, label: '100 %' },
          ]}
        />
      </div>
    </Stack>
  );
}
