import { Select } from '@mantine/core';
import type { DeviceState } from '../../../contract/bays/live.ts';
import { api } from '../../state/api.ts';
import { useLive } from '../../state/live.ts';
import { useChange } from '../../state/use-change.ts';
import classes from './devices-page.module.css';

const nowhere = 'none';

/** Where there are several bays: the one that an instrument stands in. */
export function StandsIn({ device }: { device: DeviceState }) {
  const bays = useLive((state) => state.bays);
  const move = useChange((bay: number | null) => api.setDevice({ device: device.device, bay }));
  if (bays.length < 2) return null;
  const without = device.kind === 'weather' ? 'all bays alike' : 'no bay';
  return (
    <div className={classes.place}>
      stands in
      <Select
        aria-label={`${device.name} stands in`}
        size="sm"
        w={170}
        allowDeselect={false}
        disabled={!device.connected || move.isPending}
        data={[
          ...(device.dyno ? [] : [{ value: nowhere, label: without }]),
          ...bays.map(({ bay, name }) => ({ value: String(bay), label: name })),
        ]}
        value={device.bay === null ? nowhere : String(device.bay)}
        onChange={(value) => move.mutate(value === nowhere || value === null ? null : Number(value))}
      />
    </div>
  );
}
