import { Link } from 'react-router';
import type { Job } from '../../../../contract/records.ts';
import { LiveMap, StandInDriver } from '../../../fuelling/live-map.tsx';
import { useLiveFuelling } from '../../../fuelling/use-live-fuelling.ts';
import classes from './fuelling-map.module.css';

/** The fuel table in the place of the lanes: it fills while part load is driven. */
export function FuellingMap({ job, going }: { job: Job; going: boolean }) {
  const table = useLiveFuelling(job.car.fuelling, going);
  if (going || table.cells) return <LiveMap table={table}>{going && <StandInDriver table={table} />}</LiveMap>;
  return (
    <section className={classes.before} aria-label="Part load">
      <h2>Part load</h2>
      <p>
        Record begins at once and goes on until you end it. The table fills while you drive: it says which cell to visit
        next and for how long, and which are known well enough.
      </p>
      <p>
        {job.car.fuelling
          ? `The table of ${job.vehicle} has ${job.car.fuelling.axes.across.breakpoints.length} × ${job.car.fuelling.axes.down?.breakpoints.length ?? 1} cells.`
          : `Nobody has laid out the fuel table of ${job.vehicle} yet: usual breakpoints are taken.`}{' '}
        <Link to="../logs?show=fuelling" relative="path">
          Axes and results are in Logs
        </Link>
        .
      </p>
      <p className="soft">
        Mixture first at light load, one step of load at a time; watch knock and exhaust temperature.
      </p>
    </section>
  );
}
