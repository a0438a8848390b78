import type { Job } from '../../../../contract/job/records.ts';
import { headroomTable } from '../../../../core/limits/headroom-table.ts';
import { knownLimits, limitChannel, limitQuantities, type Limit } from '../../../../core/limits/limit.ts';
import { SeverityMark } from '../../../ui/severity.tsx';
import type { LogView } from '../../../../core/log/view/log-view.ts';
import { ownUnits } from '../../../units/own-units.ts';
import { ratioOfRun, useUnits } from '../../../units/use-own-units.tsx';
import { useRunLog } from '../../../log/use-run-log.ts';
import classes from './headroom.module.css';
import type { JobFigures } from '../../../../core/figures/job-figures.ts';
import type { CompareView } from '../view/view-address.ts';

/** The latest run of the compared setup against each limit, and where the next step of the same size would land. */
export function Headroom({ job, figures, view }: { job: Job; figures: JobFigures; view: CompareView }) {
  const units = useUnits();
  const limits = knownLimits(job.limits);
  // Without a limit no log need be fetched.
  const latestOf = (setupId: number) => (limits.length > 0 ? latestRun(job, setupId) : undefined);
  const latest = latestOf(view.test.id);
  // Where the runs are not alike, nothing is extrapolated from the step between them.
  const before = figures.comparison?.withheld ? undefined : latestOf(view.against.id);
  const { data: log } = useRunLog(job, latest);
  const { data: logBefore } = useRunLog(job, before);
  if (!latest || !log) return null;
  const own = ownUnits(units, ratioOfRun(job, latest));
  const reach = (logged: LogView | undefined, runId: number | undefined) => (limit: Limit) => {
    const curve = figures.runs.find((run) => run.id === runId)?.curve;
    // A limit at the wheels is held against the reading there, whatever the lanes show.
    const [torque, power] =
      limit.scale === 'crank' && figures.estimate !== undefined
        ? [curve?.peakTorque.value, curve?.peakPower.value]
        : [curve?.wheelPeaks.torqueNm, curve?.wheelPeaks.powerKw];
    if (limit.quantity === 'torque') return torque;
    if (limit.quantity === 'power') return power;
    const found = logged?.extremes[limitChannel(limit.quantity)];
    return found && (limitQuantities[limit.quantity].side === 'most' ? found.most : found.least);
  };
  const { rows, unknown } = headroomTable(
    limits,
    reach(log, latest.id),
    reach(logBefore, before?.id),
    figures.estimate !== undefined,
  );
  return (
    <section data-testid="headroom">
      <h2 className="heading">Headroom of {latest.label}</h2>
      <table className={classes.table}>
        <thead>
          <tr>
            <th>limit</th>
            <th>read</th>
            <th>left</th>
            <th>one more step</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ limit, label, unit, reading, left, next, nextLeft }) => (
            <tr key={limit.quantity}>
              <th scope="row">
                {label}, {own.whole(limit.value, unit)}
              </th>
              <td>
                {limit.scale === 'crank' && '≈ '}
                {own.figure(reading, unit)}
              </td>
              <td>
                {left < 0 && <SeverityMark severity="stop" />} {own.difference(left, unit)}
              </td>
              <td>
                {nextLeft !== undefined && nextLeft < 0 && left >= 0 && <SeverityMark severity="mind" />}{' '}
                {next === undefined ? '–' : `≈ ${own.figure(next, unit)}`}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {unknown.length > 0 && <p className={classes.unknown}>Not known from this run: {unknown.join(', ')}.</p>}
    </section>
  );
}

/** The setup's last power run, whether or not it counts: what the car was last asked to do. */
function latestRun(job: Job, setupId: number) {
  return job.runs.filter((run) => run.setupId === setupId && run.kind === 'power' && run.state !== 'recording').at(-1);
}
