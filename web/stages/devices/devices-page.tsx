import { airTemperature } from '../../units/own-units.ts';
import { useOwnUnits } from '../../units/use-own-units.tsx';
import { Button, SegmentedControl } from '@mantine/core';
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import { nextBayName } from '../../../contract/bays/bay-requests.ts';
import type { BayState } from '../../../contract/bays/live.ts';
import { mostBays } from '../../../contract/values/parts.ts';
import { useFrame } from '../../live/use-frame.ts';
import { api } from '../../state/api.ts';
import { useWatchedBay } from '../../state/bays.ts';
import { identifierIn } from '../../state/identifier.ts';
import { useLive } from '../../state/live.ts';
import { useChange } from '../../state/use-change.ts';
import { useNow } from '../../ui/use-now.ts';
import jobs from '../jobs/jobs-page.module.css';
import { BayHead } from './bay-head.tsx';
import { Device } from './device.tsx';
import { ByHand } from './lines/by-hand.tsx';
import { ConnectLines } from './lines/connect-lines.tsx';
import { WatchedFolderPane } from './watched/watched-folder.tsx';
import { Paired } from './pairing/paired.tsx';
import classes from './devices-page.module.css';

/** Every instrument, bay by bay. */
export function DevicesPage() {
  useFrame(3);
  const [address, setAddress] = useSearchParams();
  useWatchedBay(identifierIn(address.get('bay') ?? undefined));
  const bays = useLive((state) => state.bays);
  const unplaced = useLive((state) => state.unplaced);
  const bay = useLive((state) => state.bay);
  const now = useNow();
  const [connecting, setConnecting] = useState(false);
  const add = useChange(() => api.addBay(nextBayName(bays)));
  return (
    <main className={jobs.page}>
      <header className={jobs.head}>
        <h1>Devices</h1>
        {bays.length > 1 && bay && (
          <SegmentedControl
            aria-label="Bay"
            value={String(bay.bay)}
            onChange={(value) => setAddress({ bay: value }, { replace: true })}
            data={bays.map(({ bay: number, name }) => ({ value: String(number), label: name }))}
          />
        )}
        {bays.length > 0 && <Button onClick={() => setConnecting(true)}>Connect an instrument</Button>}
        {bays.length > 0 && bays.length < mostBays && (
          <Button variant="default" loading={add.isPending} onClick={() => add.mutate(undefined)}>
            Add a bay
          </Button>
        )}
      </header>
      <p className={classes.words}>
        Suvok commands only the stand-ins’ set points. On a real machine its maker’s controls and emergency stop rule.
      </p>
      {unplaced.length > 0 && (
        <section className={classes.unplaced} aria-label="In no bay">
          <h2>Stands in no bay: nothing of it is recorded until it is placed</h2>
          {unplaced.map((device) => (
            <Device key={device.device} device={device} bay={undefined} />
          ))}
        </section>
      )}
      {connecting && (
        <ConnectLines bay={bays.length > 1 && bay ? bay.bay : null} onClose={() => setConnecting(false)} />
      )}
      <ByHand />
      <Paired />
      {bays.length > 1 && bay && <BayHead bay={bay} key={`${bay.bay} ${bay.name}`} />}
      {bay?.devices.length === 0 && (
        <p className={jobs.empty}>
          No instrument is connected{bays.length > 1 && ` in ${bay.name}`}. Instruments connect to the bench link by
          themselves (docs/bench-link.md); one that sends lines of text is connected by hand.
        </p>
      )}
      {bay?.devices.map((device) => (
        <Device key={device.device} device={device} bay={bay} />
      ))}
      {bay?.air && <Air air={bay.air} now={now} />}
      <WatchedFolderPane />
    </main>
  );
}

function Air({ air, now }: { air: NonNullable<BayState['air']>; now: number }) {
  const own = useOwnUnits();
  const ageS = Math.max(0, Math.round((now - Date.parse(air.takenAt)) / 1000));
  return (
    <p className={classes.words}>
      Air at the inlet: {airTemperature(air.temperatureC, own)}, {own.whole(air.pressureHpa, 'hPa')},{' '}
      {Math.round(air.relativeHumidityPct)} %, read {ageS < 120 ? `${ageS} s` : `${Math.round(ageS / 60)} min`} ago.
    </p>
  );
}
