import { ActionIcon, Group, Popover, SegmentedControl, Select, Text } from '@mantine/core';
import { IconArrowDown, IconArrowUp, IconX } from '@tabler/icons-react';
import { useState } from 'react';
import classes from './lane-menu.module.css';
import button from '../../../ui/text-button.module.css';
import { axisWords, laneAxes, type LaneAxisId } from '../../../../core/scene/lane-axis.ts';
import { figureLanes, laneWords, moved, placed, laneName } from '../../../../core/scene/lane-list.ts';
import type { ChangeView } from '../view/view.ts';
import type { CompareView } from '../view/view-address.ts';

interface LaneMenuProps {
  view: CompareView;
  /** Channels that the compared run logged. */
  offered: readonly string[];
  /** What the lanes can stand over. */
  axes: readonly LaneAxisId[];
  change: ChangeView;
}

/** More lanes than this are too low to be read. */
const most = 8;

/** Which lanes are shown, and in what order: by buttons, or dragged. */
export function LaneMenu({ view, offered, axes, change }: LaneMenuProps) {
  const [dragged, setDragged] = useState<string>();
  const set = (lanes: readonly string[]) => change({ lanes: laneWords(lanes) });
  const shown: readonly string[] = view.lanes;
  const more = [...figureLanes, ...offered].filter((lane) => !shown.includes(lane));
  return (
    <Popover width={340} position="bottom-start" shadow="md" trapFocus>
      <Popover.Target>
        <button className={button.act}>Lanes</button>
      </Popover.Target>
      <Popover.Dropdown>
        <ul className={classes.list}>
          {view.lanes.map((lane, index) => (
            <li
              key={lane}
              draggable
              data-dragged={dragged === lane || undefined}
              onDragStart={() => setDragged(lane)}
              onDragEnd={() => setDragged(undefined)}
              onDragOver={(event) => event.preventDefault()}
              onDrop={() => dragged && set(placed(view.lanes, dragged, lane))}
            >
              {laneName(lane)}
              <Group gap={2}>
                <LaneAct
                  label={`Move ${laneName(lane)} up`}
                  icon={IconArrowUp}
                  disabled={index === 0}
                  onClick={() => set(moved(view.lanes, lane, -1))}
                />
                <LaneAct
                  label={`Move ${laneName(lane)} down`}
                  icon={IconArrowDown}
                  disabled={index === view.lanes.length - 1}
                  onClick={() => set(moved(view.lanes, lane, 1))}
                />
                <LaneAct
                  label={`Take ${laneName(lane)} away`}
                  icon={IconX}
                  disabled={view.lanes.length === 1}
                  onClick={() => set(view.lanes.filter((other) => other !== lane))}
                />
              </Group>
            </li>
          ))}
        </ul>
        <Select
          label="Add a lane"
          placeholder={view.lanes.length >= most ? `${most} are as many as can be read` : 'λ, boost, knock…'}
          disabled={view.lanes.length >= most}
          searchable
          comboboxProps={{ withinPortal: false }}
          data={more.map((lane) => ({ value: lane, label: laneName(lane) }))}
          value={null}
          onChange={(lane) => lane && set([...view.lanes, lane])}
        />
        <Text size="sm" fw={500} mt={12} mb={4}>
          over
        </Text>
        <SegmentedControl
          fullWidth
          aria-label="Lanes over"
          data={laneAxes.map((axis) => ({ value: axis, label: axisWords[axis].name, disabled: !axes.includes(axis) }))}
          value={view.axis}
          onChange={(axis) => change({ axis: axis === 'engine-speed' ? undefined : axis, zoom: undefined })}
        />
        {axes.length < laneAxes.length && (
          <Text size="xs" c="dimmed" mt={6}>
            A hub has no road under it: there is no road speed here.
          </Text>
        )}
        {view.axis !== 'engine-speed' && (
          <Text size="xs" c="dimmed" mt={6}>
            Gains stay those at the same engine speed.
          </Text>
        )}
      </Popover.Dropdown>
    </Popover>
  );
}

interface LaneActProps {
  label: string;
  icon: typeof IconX;
  disabled: boolean;
  onClick: () => void;
}

function LaneAct({ label, icon: Icon, disabled, onClick }: LaneActProps) {
  return (
    <ActionIcon variant="subtle" color="gray" size={36} aria-label={label} disabled={disabled} onClick={onClick}>
      <Icon size={16} />
    </ActionIcon>
  );
}
