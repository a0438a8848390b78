import type { Job } from '../../../contract/records.ts';
import type { JobFigures } from '../../../core/gain/job-figures.ts';
import { headroomTable } from '../../../core/limits/headroom-table.ts';
import { limitQuantities, limitQuantityNames, type Limit, type LimitQuantity } from '../../../core/limits/limit.ts';
import { SeverityMark } from '../../ui/severity.tsx';
import { useLog } from '../../workers/figures.ts';
import type { LogView } from '../../workers/figures.worker.ts';
import { loggedEngine } from '../logs/logged-engine.ts';
import classes from './headroom.module.css';
import type { CompareView } from './view.ts';

/** The latest run of the compared setup against each limit, and where the next step of the same size would land. */
export function Headroom({ job, figures, view }: { job: Job; figures: JobFigures; view: CompareView }) {
  const latestOf = (setupId: number) => job.runs.filter((run) => run.setupId === setupId && run.kind === 'power' && run.state !== 'recording').at(-1); // prettier-ignore
  const latest = latestOf(view.test.id);
  const before = latestOf(view.against.id);
  const { data: log } = useLog(latest, loggedEngine(job, latest ?? job.runs[0]!));
  const { data: logBefore } = useLog(before, loggedEngine(job, before ?? job.runs[0]!));
  const limits = job.limits.flatMap(({ quantity, value, scale }): Limit[] =>
    (limitQuantityNames as readonly string[]).includes(quantity)
      ? [{ quantity: quantity as LimitQuantity, value, scale }]
      : [],
  );
  if (limits.length === 0 || !latest || !log) return null;
  const reach = (view_: LogView | undefined, runId: number | undefined) => (limit: Limit) => {
    const curve = figures.runs.find((run) => run.id === runId)?.curve;
    if (limit.quantity === 'torque') return curve?.peakTorque.value;
    if (limit.quantity === 'power') return curve?.peakPower.value;
    const found = view_?.extremes[limit.quantity === 'smokeLambda' ? 'lambda' : limit.quantity];
    return found && (limitQuantities[limit.quantity].side === 'most' ? found.most : found.least);
  };
  const { rows, unknown } = headroomTable(limits, reach(log, latest.id), reach(logBefore, before?.id));
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
                {label}, {written(limit.value, unit)} {unit}
              </th>
              <td>{written(reading, unit)}</td>
              <td>
                {left < 0 && <SeverityMark severity="stop" />} {written(left, unit)}
              </td>
              <td>
                {nextLeft !== undefined && nextLeft < 0 && left >= 0 && <SeverityMark severity="mind" />}{' '}
                {next === undefined ? '–' : `≈ ${written(next, unit)}`}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {unknown.length > 0 && <p className={classes.unknown}>Not known from this run: {unknown.join(', ')}.</p>}
    </section>
  );
}

function written(value: number, unit: string): string {
  const text =
    unit === '' ? value.toFixed(2) : unit === '°' ? value.toFixed(1) : Math.round(value).toLocaleString('en-GB');
  return text.replace('-', '−').replace(/^−(0(\.0+)?)$/, '$1');
}
