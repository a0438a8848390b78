import { useHotkeys } from '@mantine/hooks';
import { Outlet, ScrollRestoration } from 'react-router';
import { useLive } from '../state/live.ts';
import { useJob } from '../state/queries.ts';
import { UndoKey } from '../state/undo.tsx';
import { usePrint } from './printing.ts';
import { FuelOfJob } from '../units/use-own-units.tsx';
import { TopBar, useJobInSight } from './top-bar.tsx';
import classes from './shell.module.css';

/** The frame around every screen. */
export function Shell() {
  const jobId = useJobInSight();
  const { data: job } = useJob(jobId ?? 0, jobId !== undefined);
  const print = usePrint();
  useHotkeys([['mod+P', print]]);
  const lost = useLive((state) => state.everConnected && !state.connected);
  return (
    <div className={classes.shell}>
      <TopBar />
      {lost && (
        <div className={classes.lost} role="status">
          This page has lost the server and tries again. A run being recorded goes on without the page.
        </div>
      )}
      <div className={classes.screen}>
        <FuelOfJob job={job}>
          <Outlet />
        </FuelOfJob>
      </div>
      <UndoKey />
      <ScrollRestoration />
    </div>
  );
}
