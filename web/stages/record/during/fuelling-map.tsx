import { useMemo } from 'react';
import { Link } from 'react-router';
import type { RunPlan } from '../../../../contract/instruments/recording.ts';
import type { Job } from '../../../../contract/job/records.ts';
import { tableOfPlan } from '../../../fuelling/table-of-plan.ts';
import { LiveMap, StandInDriver } from '../../../fuelling/live-map.tsx';
import { useLiveFuelling } from '../../../fuelling/use-live-fuelling.ts';
import classes from './fuelling-map.module.css';

/** The fuel table in the place of the lanes: it fills while part load is driven. */
export function FuellingMap({ job, plan, going }: { job: Job; plan: RunPlan; going: boolean }) {
  const layout = useMemo(() => tableOfPlan(plan, job), [plan, job]);
  const table = useLiveFuelling(layout, going);
  // A row of holds is driven in its own order by a stand-in; on a real dyno it is called out here.
  const drives = going && plan.kind === 'part-load';
  if (going || table.cells) return <LiveMap table={table}>{drives && <StandInDriver table={table} />}</LiveMap>;
  if (plan.kind === 'step')
    return (
      <section className={classes.before} aria-label="Holds">
        <h2>Holds</h2>
        <p>
          {plan.steps.speedsRpm.length} speeds at {plan.steps.loadsKpa.length} loads, {plan.steps.dwellS} s each. While
          it is recorded, the hold that comes next is named here, and those that are known well enough are marked.
        </p>
      </section>
    );
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
