import { Link } from 'react-router';
import type { Job } from '../../../contract/job/records.ts';
import { baselineSetup } from '../../../core/job/baseline.ts';
import { WithJob } from '../../app/with-job.tsx';
import { useJobFigures } from '../../job/use-job-figures.ts';
import { useRunLog } from '../../log/use-run-log.ts';
import { setupColour } from '../../../core/scene/setup-look.ts';
import { SetupsColumn } from '../../setups/setups-column.tsx';
import classes from './logs-stage.module.css';
import { FuelOfRun } from '../../units/use-own-units.tsx';
import { FuellingPanes } from './fuelling/fuelling-panes.tsx';
import { RunLogPanes } from './run-log-panes.tsx';
import { endedRuns } from './view/beside.ts';
import { useLogsView } from './view/use-logs-view.ts';

/** The stage for what the engine logged: what happened and where, the channels that tell most, then all others. */
export function LogsStage() {
  return <WithJob>{(job) => <Logs key={job.id} job={job} />}</WithJob>;
}

function Logs({ job }: { job: Job }) {
  const [view, change] = useLogsView();
  const runs = endedRuns(job);
  const run = runs.find(({ label }) => label === view.run) ?? runs.at(-1);
  const baselineId = baselineSetup(job.setups, job.baseline).id;
  const setup = job.setups.find(({ id }) => id === run?.setupId);
  const { data: log, error } = useRunLog(job, run);
  // The lanes are what is waited for here; the cards' figures and the peak's place come after them.
  const isThere = run === undefined || log !== undefined || error !== null;
  const figures = useJobFigures(job, { testId: run?.setupId ?? undefined, againstId: baselineId }, isThere);
  // Where nothing was pulled there is no engine speed to lay it over.
  const shown = log?.unjudged ? { ...view, axis: 'time' as const } : view;
  return (
    <div className={classes.stage}>
      <SetupsColumn
        job={job}
        figures={figures}
        baselineId={baselineId}
        chosenId={setup?.id}
        choosing="show its last log"
        onChoose={(chosen) => {
          const last = runs.filter(({ setupId }) => setupId === chosen.id).at(-1);
          if (last) change({ run: last.label, at: undefined, zoom: undefined });
        }}
        onAdded={() => undefined}
      />
      {!run || !setup ? (
        <main className={classes.main} aria-label="Logs">
          <div className={classes.message}>
            <h1>No run to look into yet</h1>
            <p>
              Record one on{' '}
              <Link to="../record" relative="path">
                Record
              </Link>
              : its channels are shown here right after the lift.
            </p>
          </div>
        </main>
      ) : (
        <FuelOfRun key={view.show === 'fuelling' ? 'fuelling' : run.id} job={job} run={run}>
          {view.show === 'fuelling' ? (
            <FuellingPanes job={job} run={run} setup={setup} view={view} change={change} />
          ) : (
            <RunLogPanes
              job={job}
              run={run}
              colour={setupColour(setup.letter, setup.id === baselineId)}
              figures={figures}
              log={log}
              problem={error?.message}
              view={shown}
              change={change}
              baselineId={baselineId}
            />
          )}
        </FuelOfRun>
      )}
    </div>
  );
}
