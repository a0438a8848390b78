import type { BayState } from '../../../contract/live.ts';
import { useLive } from '../../state/live.ts';
import { useNow } from '../../ui/use-now.ts';
import { useFrame } from '../../live/use-frame.ts';
import jobs from '../jobs/jobs-page.module.css';
import { Device } from './device.tsx';
import classes from './devices-page.module.css';

/** Every instrument of the bay. */
export function DevicesPage() {
  useFrame(3);
  const bay = useLive((state) => state.bay);
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
          one is written, and how one that cannot is brought in by an adapter.
        </p>
      )}
      {bay?.devices.map((device) => (
        <Device key={device.device} device={device} bay={bay} />
      ))}
      {bay?.air && <Air air={bay.air} now={now} />}
    </main>
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
