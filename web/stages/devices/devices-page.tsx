import { Chip } from '@mantine/core';
import { useState } from 'react';
import type { BayState, DeviceState } from '../../../contract/live.ts';
import { knownChannels, type KnownChannel } from '../../../core/channels/channels.ts';
import { api } from '../../state/api.ts';
import { latestReading, useLive } from '../../state/live.ts';
import { useChange } from '../../state/queries.ts';
import { FindingLine, FindingList } from '../../ui/severity.tsx';
import { useNow } from '../../ui/use-now.ts';
import jobs from '../jobs/jobs-page.module.css';
import classes from './devices-page.module.css';

const kinds: Record<DeviceState['kind'], string> = {
  'inertia-roller': 'inertia roller',
  'loaded-roller': 'loaded roller',
  hub: 'hub dyno',
  weather: 'weather station',
  'engine-logger': 'engine logger',
};

/** Every instrument of the bay: whether it is heard, how fast, what it says, and what went wrong with it. */
export function DevicesPage() {
  const bay = useLive((state) => state.bay);
  const dynoDevice = useLive((state) => state.dynoDevice);
  const now = useNow();
  return (
    <main className={jobs.page}>
      <header className={jobs.head}>
        <h1>Devices</h1>
      </header>
      <p className={classes.words}>
        Suvok commands only the stand-ins’ set points. On a real machine its maker’s controls and emergency stop rule.
      </p>
      {bay?.devices.length === 0 && (
        <p className={jobs.empty}>
          No instrument is connected. Instruments connect to the bench link by themselves; docs/bench-link.md says how
          one is written.
        </p>
      )}
      {bay?.devices.map((device) => (
        <Device
          key={device.device}
          device={device}
          read={(name) =>
            device.device === dynoDevice
              ? latestReading(name)
              : device.kind === 'weather'
                ? ofAir(bay.air, name)
                : undefined
          }
        />
      ))}
      {bay?.air && <Air air={bay.air} now={now} />}
    </main>
  );
}

/** The weather station's readings, where they are kept as the bay's air. */
function ofAir(air: BayState['air'], name: string): number | undefined {
  if (!air) return undefined;
  const kept: Record<string, number> = {
    airTemperature: air.temperatureC,
    airPressure: air.pressureHpa,
    relativeHumidity: air.relativeHumidityPct,
  };
  return kept[name];
}

function Device({ device, read }: { device: DeviceState; read: (name: string) => number | undefined }) {
  const state = !device.connected ? 'not connected' : device.heard ? 'heard' : 'silent';
  return (
    <section className={classes.device} aria-label={device.name}>
      <h2>
        {device.name} <small>{kinds[device.kind]}</small>
      </h2>
      <dl className={classes.facts}>
        <Fact name="state" value={state} />
        <Fact
          name="rate"
          value={device.rateHz === null ? '–' : `${device.rateHz.toFixed(device.rateHz < 10 ? 1 : 0)} Hz`}
        />
        <Fact name="frames missing" value={device.missing.toLocaleString('en-GB')} />
        {device.dyno && <Fact name="inertia" value={`${device.dyno.inertiaKgM2} kg·m²`} />}
        {device.dyno?.radiusM !== undefined && <Fact name="drum radius" value={`${device.dyno.radiusM} m`} />}
        {device.dyno?.loadCellLagS !== undefined && (
          <Fact name="load cell lag" value={`${device.dyno.loadCellLagS} s`} />
        )}
        {device.engineToDrumRatio !== null && <Fact name="engine ÷ drum" value={device.engineToDrumRatio.toFixed(3)} />}
      </dl>
      <FindingList>
        {device.problem && <FindingLine severity="mind">{device.problem}</FindingLine>}
        {state !== 'heard' && (
          <FindingLine severity="stop">
            {state === 'silent'
              ? 'It is connected but nothing comes from it.'
              : 'It takes its place again when it comes back; what was recorded is kept.'}
          </FindingLine>
        )}
      </FindingList>
      {device.faults.offered.length > 0 && <FaultPanel device={device} />}
      <ul className={classes.channels}>
        {device.channels.map(({ name, unit }) => (
          <li key={name}>
            <span>{knownChannels[name as KnownChannel]?.label ?? `${name} (custom)`}</span>
            <b className="number">
              {written(read(name))} <small>{unit === '–' ? '' : unit}</small>
            </b>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What a stand-in can be made to do wrong, for demonstrations and training; no real machine has this. */
function FaultPanel({ device }: { device: DeviceState }) {
  const play = useChange((faults: string[]) => api.playFaults(device.device, faults));
  // What was asked for last, until the stand-in says what it plays.
  const [asked, setAsked] = useState<string[]>();
  const on = device.faults.on.join();
  const [told, setTold] = useState(on);
  if (told !== on) {
    setTold(on);
    setAsked(undefined);
  }
  return (
    <Chip.Group
      multiple
      value={asked ?? device.faults.on}
      onChange={(faults) => {
        setAsked(faults);
        play.mutate(faults);
      }}
    >
      <div className={classes.faults} role="group" aria-label={`Faults that ${device.name} plays`}>
        <span className="soft">Let it fail:</span>
        {device.faults.offered.map((fault) => (
          <Chip key={fault} value={fault} size="md">
            {fault}
          </Chip>
        ))}
      </div>
    </Chip.Group>
  );
}

function Fact({ name, value }: { name: string; value: string }) {
  return (
    <div>
      <dt>{name}</dt>
      <dd className="number">{value}</dd>
    </div>
  );
}

function Air({ air, now }: { air: NonNullable<BayState['air']>; now: number }) {
  const ageS = Math.max(0, Math.round((now - Date.parse(air.takenAt)) / 1000));
  return (
    <p className={classes.words}>
      Air at the inlet: {air.temperatureC.toFixed(1)} °C, {Math.round(air.pressureHpa)} hPa,{' '}
      {Math.round(air.relativeHumidityPct)} %, read {ageS < 120 ? `${ageS} s` : `${Math.round(ageS / 60)} min`} ago.
    </p>
  );
}

const written = (value: number | undefined) =>
  value === undefined ? '–' : Number(value.toPrecision(5)).toLocaleString('en-GB');
