import { Button, Checkbox, Group, Popover, Stack } from '@mantine/core';
import { PinButton } from './pin-button.tsx';
import type { Telling } from './use-logs.ts';
import type { ChangeLogsView } from './view/use-logs-view.ts';
import type { LaneGroup } from '../../../core/log/view/lane-groups.ts';
import { channelLabel } from '../../../core/recording/channels.ts';
import { listed } from '../../../core/units/spoken.ts';

interface LaneChoiceProps {
  telling: Telling;
  opened: readonly string[];
  /** Nobody has chosen: they are those that tell most. */
  usual: boolean;
  pinned: readonly string[];
  change: ChangeLogsView;
  onPin: (channel: string) => void;
}

/** Which channels stand as lanes. */
export function LaneChoice({ telling, opened, usual, pinned, change, onPin }: LaneChoiceProps) {
  const toggle = (id: string) =>
    change({ lanes: opened.includes(id) ? opened.filter((other) => other !== id) : [...opened, id] });

  return (
    <Popover width={300} position="bottom-end" shadow="md" trapFocus>
      <Popover.Target>
        <Button variant="default" size="xs">
          Lanes
        </Button>
      </Popover.Target>
      <Popover.Dropdown mah={460} style={{ overflowY: 'auto' }}>
        <Group justify="space-between" mb={10}>
          <span className="soft">The most telling first</span>
          <Button size="xs" variant="subtle" disabled={usual} onClick={() => change({ lanes: undefined })}>
            Choose for me
          </Button>
        </Group>
        <Stack gap={9}>
          {telling.groups.map((group) => (
            <Group key={group.id} justify="space-between" wrap="nowrap">
              <Checkbox
                label={laneTitle(group)}
                checked={opened.includes(group.id)}
                onChange={() => toggle(group.id)}
              />
              <PinButton
                label={laneTitle(group)}
                pinned={group.channels.some((name) => pinned.includes(name))}
                onPress={() => onPin(group.channels.find((name) => pinned.includes(name)) ?? group.id)}
              />
            </Group>
          ))}
        </Stack>
      </Popover.Dropdown>
    </Popover>
  );
}

/** What a group of channels is called in a list. */
export function laneTitle({ channels }: Pick<LaneGroup, 'channels'>): string {
  return listed(channels.map(channelLabel));
}
