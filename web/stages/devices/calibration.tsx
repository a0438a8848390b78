import { useOwnUnits } from '../../units/use-own-units.tsx';
import { Button, Group, NumberInput } from '@mantine/core';
import { useState } from 'react';
import type { DeviceState } from '../../../contract/bays/live.ts';
import { channelLabel } from '../../../core/recording/channels.ts';
import { Link } from 'react-router';
import { dueWords } from '../../../core/equipment/due.ts';
import { calendarToday, useEquipment } from '../../equipment/use-equipment.ts';
import { api } from '../../state/api.ts';
import { useChange } from '../../state/use-change.ts';
import { formatTenths } from '../../../core/wording/figures.ts';
import classes from './devices-page.module.css';

/** Ratio of engine to drum at a steady speed, and the zero of the load cells. */
export function Calibration({ device, mounted }: { device: DeviceState; mounted: boolean }) {
  const pickup = device.channels.some(({ name }) => name === 'engineSpeed');
  const cells = device.channels.some(({ name }) => name.startsWith('absorberTorque'));
  return (
    <details className={classes.fold}>
      <summary>
        Calibration
        <small>{summaryOf(device)}</small>
      </summary>
      <Ratio device={device} pickup={pickup} mounted={mounted} />
      {cells && <Zero device={device} />}
      <Height device={device} />
      <Dates device={device} />
    </details>
  );
}

function summaryOf({ settings }: DeviceState): string {
  const { ratio, zero } = settings;
  return [
    ratio
      ? `ratio ${ratio.value.toFixed(3)} for ${ratio.vehicle}${ratio.gear ? `, ${ratio.gear}` : ''}`
      : 'ratio not taken',
    zero && 'load cell zeroed',
  ]
    .filter(Boolean)
    .join(' · ');
}

/** What must be kept in date of this instrument. */
function Dates({ device }: { device: DeviceState }) {
  const { data } = useEquipment();
  const own = (data ?? []).filter((item) => item.device === device.device);
  if (own.length === 0) return null;
  return (
    <div className={classes.setting}>
      <h3>Kept in date</h3>
      {own.map((item) => (
        <p key={item.id}>
          <Link to="/equipment">{item.name}</Link>
          {item.what && `, ${item.what}`}: {dueWords(item, calendarToday())}
        </p>
      ))}
    </div>
  );
}

/** Where the shop stands: a sea-level pressure that was typed in is told by it. */
function Height({ device }: { device: DeviceState }) {
  const { altitudeM } = device.settings;
  const known = altitudeM ?? device.dyno?.altitudeM ?? null;
  const [draft, setDraft] = useState<string | number>(known ?? '');
  const save = useChange(() =>
    api.setDevice({ device: device.device, altitudeM: draft === '' ? null : Number(draft) }),
  );
  return (
    <div className={classes.setting}>
      <h3>Height above the sea</h3>
      <p>Tells a sea-level pressure that was entered for one of the place, and takes such a one down to it.</p>
      <Group gap={8} align="end">
        <NumberInput label="Height, m" min={-500} max={6000} allowDecimal={false} value={draft} onChange={setDraft} />
        <Button
          variant="default"
          size="md"
          disabled={(draft === '' ? null : Number(draft)) === known}
          loading={save.isPending}
          onClick={() => save.mutate(undefined)}
        >
          Keep
        </Button>
      </Group>
    </div>
  );
}

function Ratio({ device, pickup, mounted }: { device: DeviceState; pickup: boolean; mounted: boolean }) {
  const [engineRpm, setEngineRpm] = useState<number>();
  const take = useChange(() => api.calibrateRatio(device.device, pickup ? undefined : engineRpm));
  const clear = useChange(() => api.setDevice({ device: device.device, ratio: null }));
  const { ratio } = device.settings;
  const speed = useOwnUnits().told('km/h');
  return (
    <div className={classes.setting}>
      <h3>Engine speed to drum speed</h3>
      <p>
        Hold a steady speed at light throttle in the gear of the runs, then take it.{' '}
        {pickup
          ? 'Runs use the pickup; the ratio stands in where it fails.'
          : 'This dyno has no pickup: type what the car’s own instrument shows.'}
      </p>
      {ratio && (
        <p>
          <b className="number">{ratio.value.toFixed(3)}</b>
          {ratio.rpmPerKmh !== null && (
            <>
              , <b className="number">{formatTenths(ratio.rpmPerKmh / speed.of(1))}</b> rpm per {speed.unit}
            </>
          )}
          {ratio.axles && (
            <>
              , front axle <b className="number">{ratio.axles.front.toFixed(3)}</b>, rear axle{' '}
              <b className="number">{ratio.axles.rear.toFixed(3)}</b>
            </>
          )}{' '}
          for {ratio.vehicle}
          {ratio.gear && `, ${ratio.gear}`}, {when(ratio.at)}. Used for that car and gear alone.
        </p>
      )}
      <Group gap={8} align="end">
        {!pickup && (
          <NumberInput
            label="Engine speed now, rpm"
            min={300}
            max={30_000}
            step={50}
            value={engineRpm ?? ''}
            onChange={(value) => setEngineRpm(value === '' ? undefined : Number(value))}
          />
        )}
        <Button
          variant="default"
          size="md"
          loading={take.isPending}
          disabled={!device.heard || !mounted || (!pickup && engineRpm === undefined)}
          onClick={() => take.mutate(undefined)}
        >
          Take the ratio now
        </Button>
        {ratio && (
          <Button variant="subtle" color="gray" size="md" onClick={() => clear.mutate(undefined)}>
            Forget it
          </Button>
        )}
        {!mounted && <span className="soft">Put a car on the dyno first.</span>}
      </Group>
    </div>
  );
}

function Zero({ device }: { device: DeviceState }) {
  const take = useChange(() => api.zeroLoadCell(device.device));
  const rest = useChange(() => api.bringToRest(device.device));
  const clear = useChange(() => api.setDevice({ device: device.device, zero: null }));
  const { zero } = device.settings;
  const read = zero && (Object.entries(zero).filter(([name]) => name !== 'at') as [string, number][] | null);
  return (
    <div className={classes.setting}>
      <h3>Zero of the load cell</h3>
      <p>
        With the drum at rest and nothing on the cell. It is taken off every run from then on; what was recorded stays
        as it is.
      </p>
      {zero && read && (
        <p>
          {read.map(([name, value]) => (
            <span key={name}>
              {channelLabel(name)} <b className="number">{formatTenths(value)}</b> N·m,{' '}
            </span>
          ))}
          {when(zero.at)}
        </p>
      )}
      <Group gap={8}>
        {device.commands.includes('stop') && (
          <Button
            variant="default"
            size="md"
            loading={rest.isPending}
            disabled={!device.heard}
            onClick={() => rest.mutate(undefined)}
          >
            Let the stand-in come to rest
          </Button>
        )}
        <Button
          variant="default"
          size="md"
          loading={take.isPending}
          disabled={!device.heard}
          onClick={() => take.mutate(undefined)}
        >
          Take the zero now
        </Button>
        {zero && (
          <Button variant="subtle" color="gray" size="md" onClick={() => clear.mutate(undefined)}>
            Forget it
          </Button>
        )}
      </Group>
    </div>
  );
}

function when(at: string): string {
  return `taken ${new Date(at).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' })}`;
}
