import { useOwnUnits } from '../../units/use-own-units.tsx';
import type { BayState, DeviceState } from '../../../contract/bays/live.ts';
import type { Told } from '../../../core/units/told-units.ts';
import { keptUnit, knownChannels, type KnownChannel } from '../../../core/recording/channels.ts';
import { deviceKindWords } from '../../live/device-kind-words.ts';
import { latestReading, useLive } from '../../state/live.ts';
import { FindingLine, FindingList } from '../../ui/severity.tsx';
import { Calibration } from './calibration.tsx';
import { ChannelNames } from './channel-names.tsx';
import { CheckRuns } from './check-runs.tsx';
import classes from './devices-page.module.css';
import { FaultPanel } from './fault-panel.tsx';
import { ProbePlace } from './probe-place.tsx';
import { StandsIn } from './stands-in.tsx';

/** One instrument: whether it is heard, how fast and how well, what it says, and what the shop has set of it. @param bay that is watched, where it stands in it */
export function Device({ device, bay }: { device: DeviceState; bay: BayState | undefined }) {
  const dynoDevice = useLive((state) => state.dynoDevice);
  const shown = device.device === dynoDevice;
  const read = (name: string): number | undefined => {
    if (device.kind === 'weather') return ofAir(bay?.air ?? null, name);
    if (device.kind === 'engine-logger') return latestReading(`${device.device}:${name}`) ?? latestReading(name);
    return shown ? latestReading(name) : undefined;
  };
  const own = useOwnUnits();
  const state = !device.connected ? 'not connected' : device.heard ? 'connected' : 'silent';
  return (
    <section className={classes.device} aria-label={device.name}>
      <div className={classes.title}>
        <h2>
          {device.name} <small>{deviceKindWords[device.kind]}</small>
        </h2>
        <StandsIn device={device} />
      </div>
      <dl className={classes.facts}>
        <Fact name="state" value={state} />
        <Fact
          name="rate"
          value={device.rateHz === null ? '–' : `${device.rateHz.toFixed(device.rateHz < 10 ? 1 : 0)} Hz`}
        />
        <Fact
          name="frames missing"
          value={`${device.missing.toLocaleString('en-GB')}${device.gaps > 0 ? ` in ${device.gaps} ${device.gaps === 1 ? 'gap' : 'gaps'}` : ''}`}
        />
        <Fact name="clock against ours" value={driftWords(device.clockDriftPpm)} />
        {device.dyno && <Fact name="inertia" value={`${device.dyno.inertiaKgM2} kg·m²`} />}
        {device.dyno?.radiusM !== undefined && <Fact name="drum radius" value={`${device.dyno.radiusM} m`} />}
        {device.dyno?.loadCellLagS !== undefined && (
          <Fact name="load cell lag" value={`${device.dyno.loadCellLagS} s`} />
        )}
        {device.engineToDrumRatio !== null && <Fact name="engine ÷ drum" value={device.engineToDrumRatio.toFixed(3)} />}
      </dl>
      <FindingList>
        {device.problem && <FindingLine severity="mind">{device.problem}</FindingLine>}
        {state !== 'connected' && (
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
              {writtenAs(read(name), own.told(keptUnit(name, unit)))} <small>{own.unit(keptUnit(name, unit))}</small>
            </b>
          </li>
        ))}
      </ul>
      <div className={classes.settings}>
        {device.dyno && <Calibration device={device} mounted={bay !== undefined && bay.mounted !== null} />}
        {device.kind === 'engine-logger' && device.channels.some(({ name }) => name === 'lambda') && (
          <ProbePlace device={device} />
        )}
        {device.kind !== 'weather' && <ChannelNames device={device} />}
      </div>
      {device.dyno && <CheckRuns device={device} />}
    </section>
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

/** A drift as a person can use it: in seconds an hour. */
function driftWords(ppm: number | null): string {
  if (ppm === null) return 'not known yet';
  const secondsAnHour = (ppm * 3600) / 1e6;
  if (Math.abs(secondsAnHour) < 0.05) return 'keeps time';
  return `${Math.abs(secondsAnHour).toFixed(2)} s an hour ${ppm > 0 ? 'fast' : 'slow'}`;
}

function Fact({ name, value }: { name: string; value: string }) {
  return (
    <div>
      <dt>{name}</dt>
      <dd className="number">{value}</dd>
    </div>
  );
}

/** To five figures: an instrument is looked at more closely than a reading. */
function writtenAs(kept: number | undefined, { of }: Told): string {
  return kept === undefined || Number.isNaN(kept) ? '–' : Number(of(kept).toPrecision(5)).toLocaleString('en-GB');
}
