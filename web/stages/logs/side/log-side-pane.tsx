import { useOwnUnits } from '../../../units/use-own-units.tsx';
import { Link } from 'react-router';
import type { Job, Run } from '../../../../contract/job/records.ts';
import type { JobFigures } from '../../../../core/figures/job-figures.ts';
import type { RunFinding } from '../../../../core/judgement/run-findings.ts';
import type { LogView, ShownEvent } from '../../../../core/log/view/log-view.ts';
import { FindingLine, FindingList, SeverityMark } from '../../../ui/severity.tsx';
import type { LogSide } from '../view/log-side.ts';
import { BoostTable } from './boost-table.tsx';
import { FuelSupplyTable } from './fuel-supply-table.tsx';
import classes from './log-side-pane.module.css';
import { SagOverVisits } from './sag-over-visits.tsx';
import { LoggerFits } from './logger-fits.tsx';

interface LogSidePaneProps {
  job: Job;
  run: Run;
  log: LogView;
  figures: JobFigures | undefined;
  beside: readonly LogSide[];
  onChoose: (event: ShownEvent) => void;
}

/** What the log says: what was found, fuel supply, boost, and how it was time-aligned. */
export function LogSidePane({ job, run, log, figures, beside, onChoose }: LogSidePaneProps) {
  const { write } = useOwnUnits();
  const figured = figures?.runs.find(({ id }) => id === run.id);
  return (
    <aside className={classes.pane} aria-label="What the log says">
      <div className={classes.said}>
        <BeyondLog found={figured?.found} />
        {log.unjudged && <p className={classes.quiet}>{log.unjudged}</p>}
        {log.events.length > 0 && (
          <ul className={classes.events} data-testid="log-events">
            {log.events.map((event) => (
              <li key={`${event.id}-${event.fromS}`} data-severity={event.severity}>
                <button onClick={() => onChoose(event)} title="Show where">
                  <SeverityMark severity={event.severity} />
                  <span>{write(event.message)}</span>
                </button>
              </li>
            ))}
          </ul>
        )}
        {!log.unjudged && (log.events.length === 0 || log.notLogged.length > 0) && (
          <p className={classes.quiet} data-testid={log.events.length === 0 ? 'log-events' : undefined}>
            {log.events.length === 0 && 'Nothing stands out in what was logged. '}
            {log.notLogged.length > 0 && `Not logged, so not judged: ${log.notLogged.join(', ')}.`}
          </p>
        )}
        <FuelSupplyTable job={job} run={run} log={log} curve={figured?.curve} />
        {log.events.some(({ id }) => id === 'fuel-pressure-sag') && <SagOverVisits job={job} />}
        {log.boost && <BoostTable run={run.label ?? ''} boost={log.boost} beside={beside[0]} />}
        <LoggerFits loggers={log.loggers} run={run} />
      </div>
      <Link className={classes.decide} to="../compare" relative="path">
        Decide in Compare
      </Link>
    </aside>
  );
}

/** Broken limits of the run that no channel tells of: power and torque. */
function BeyondLog({ found = [] }: { found: readonly RunFinding[] | undefined }) {
  const { write } = useOwnUnits();
  const beyond = found.filter(({ from }) => from === 'limit');
  if (beyond.length === 0) return null;
  return (
    <FindingList>
      {beyond.map(({ id, severity, message }) => (
        <FindingLine key={id} severity={severity}>
          {write(message)}
        </FindingLine>
      ))}
    </FindingList>
  );
}
