import { clockTime } from '../../contract/values/clock-time.ts';
import { Outlet, ScrollRestoration } from 'react-router';
import { EverywhereKeys } from '../palette/everywhere.tsx';
import { useLive } from '../state/live.ts';
import { useJob } from '../state/queries.ts';
import { UndoKey } from '../state/undo.tsx';
import { FuelOfJob } from '../units/use-own-units.tsx';
import { TextsSetAside } from './texts-set-aside.tsx';
import { TopBar, useJobInSight } from './top-bar.tsx';
import classes from './shell.module.css';

/** The frame around every screen. */
export function Shell() {
  const jobId = useJobInSight();
  const { data: job } = useJob(jobId ?? 0, jobId !== undefined);
  const lost = useLive((state) => state.everConnected && !state.connected);
  const since = useLive((state) => state.silentSince);
  return (
    <div className={classes.shell}>
      <a className={classes.skip} href="#screen">
        Skip to the screen
      </a>
      <TopBar />
      {lost && (
        <div className={classes.lost} role="status">
          {since === undefined ? 'The server does not answer' : `The server has not answered since ${clockTime(since)}`}
          : what is struck out is old. The page tries again. A run being recorded goes on without it.
        </div>
      )}
      <div className={classes.screen} id="screen" tabIndex={-1}>
        <FuelOfJob job={job}>
          <Outlet />
        </FuelOfJob>
      </div>
      <EverywhereKeys job={job} />
      <UndoKey />
      <TextsSetAside />
      <ScrollRestoration />
    </div>
  );
}
