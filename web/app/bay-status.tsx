import type { BayState } from '../../contract/live.ts';
import { useLive } from '../state/live.ts';
import { formatTenths, formatWhole } from '../ui/figures.ts';
import { useNow } from '../ui/use-now.ts';
import classes from './bay-status.module.css';

const kindNames: Record<string, string> = {
  'inertia-roller': 'inertia roller',
  'loaded-roller': 'loaded roller',
  hub: 'hub dyno',
  weather: 'weather station',
  'engine-logger': 'engine logger',
};

/** Instruments, air and its age, in the corner of every screen. */
export function BayStatus() {
  const bay = useLive((state) => state.bay);
  const now = useNow();
  if (!bay) return <div className={classes.status} />;
  const heard = bay.devices.filter((device) => device.heard);
  const dyno = heard.find((device) => device.dyno !== null);
  const fault = bay.devices.find((device) => device.problem !== null || (device.connected && !device.heard));
  return (
    <div className={classes.status} role="status" aria-label="Bay">
      <div title={fault ? `${fault.name}: ${fault.problem ?? 'silent'}` : undefined}>
        <span className={dyno ? classes.heard : classes.unheard} aria-hidden />
        {dyno ? `Bay 1, ${kindNames[dyno.kind]}` : 'Bay 1, no dyno connected'}
        <span className={classes.count}> · {heard.length === 1 ? '1 instrument' : `${heard.length} instruments`}</span>
      </div>
      <div className="number">{airText(bay, now)}</div>
    </div>
  );
}

function airText(bay: BayState, now: number): string {
  if (!bay.air) return 'no air reading yet';
  const { temperatureC, pressureHpa, relativeHumidityPct, takenAt } = bay.air;
  const age = Math.max(0, Math.round((now - new Date(takenAt).getTime()) / 1000));
  const old = age < 120 ? `${age} s old` : `${Math.round(age / 60)} min old`;
  return `${formatTenths(temperatureC)} °C · ${formatWhole(pressureHpa)} hPa · ${formatWhole(relativeHumidityPct)} % · ${old}`;
}
