import { SegmentedControl } from '@mantine/core';
import { Link, useSearchParams } from 'react-router';
import type { Job, Run } from '../../../contract/records.ts';
import { baselineRuns, baselineSetup } from '../../../core/job/baseline.ts';
import { WithJob } from '../../app/with-job.tsx';
import type { RunFinding } from '../../../core/judgement/run-findings.ts';
import { FindingLine, FindingList } from '../../ui/severity.tsx';
import { setupColour } from '../../setups/setup-colour.ts';
import { SetupsColumn } from '../../setups/setups-column.tsx';
import { useJobFigures } from '../../job/use-job-figures.ts';
import { AllChannels } from './all-channels.tsx';
import { EventCards } from '../../log/event-cards.tsx';
import { useRunLog } from '../../log/use-run-log.ts';
import { LoggerFileButton } from './logger-file/logger-file-button.tsx';
import { LoggerFits } from './logger-fits.tsx';
import classes from './logs-stage.module.css';

/** The stage for what the engine logged: what happened first, then every channel beside the baseline's. */
export function LogsStage() {
  return <WithJob>{(job) => <Logs key={job.id} job={job} />}</WithJob>;
}

function Logs({ job }: { job: Job }) {
  const [address, setAddress] = useSearchParams();
  const runs = job.runs.filter(
    (run): run is Run & { label: string } => run.state !== 'recording' && run.label !== null,
  );
  const run = runs.find((candidate) => candidate.label === address.get('run')) ?? runs.at(-1);
  const by = address.get('by') === 'time' ? 'time' : 'speed';
  const baseline = besideRun(job, run);
  const choose = (change: Record<string, string>) =>
    setAddress((before) => new URLSearchParams({ ...Object.fromEntries(before), ...change }), { replace: true });
  const baselineId = baselineSetup(job.setups, job.baseline).id;
  const figures = useJobFigures(job, { testId: run?.setupId ?? undefined, againstId: baselineId });
  const setup = job.setups.find((candidate) => candidate.id === run?.setupId);
  return (
    <div className={classes.stage}>
      <SetupsColumn
        job={job}
        figures={figures}
        baselineId={baselineId}
        chosenId={setup?.id}
        choosing="show its last log"
        onChoose={(chosen) => {
          const last = runs.filter((candidate) => candidate.setupId === chosen.id).at(-1);
          if (last) choose({ run: last.label });
        }}
        onAdded={() => undefined}
      />
      <main className={classes.main} aria-label="Logs">
        {!run && (
          <div className={classes.message}>
            <h2>No run to look into yet</h2>
            <p>
              Record one on{' '}
              <Link to="../record" relative="path">
                Record
              </Link>
              : its channels are shown here right after the lift.
            </p>
          </div>
        )}
        {run && setup && (
          <>
            <header className={classes.head}>
              <h1>{run.label}</h1>
              <nav className={classes.runs} aria-label={`Runs of ${setup.letter}`}>
                {runs
                  .filter((candidate) => candidate.setupId === setup.id)
                  .map(({ id, label }) => (
                    <button
                      key={id}
                      aria-pressed={id === run.id}
                      className={classes.run}
                      onClick={() => choose({ run: label })}
                    >
                      {label}
                    </button>
                  ))}
              </nav>
              <LoggerFileButton job={job} />
              <SegmentedControl
                aria-label="Over what"
                data={[
                  { value: 'speed', label: 'over engine speed' },
                  { value: 'time', label: 'over time' },
                ]}
                value={by}
                onChange={(value) => choose({ by: value })}
              />
            </header>
            <BeyondLog found={figures?.runs.find(({ id }) => id === run.id)?.found} />
            <LogOf
              job={job}
              run={run}
              baseline={baseline}
              by={by}
              colour={setupColour(setup.letter, setup.id === baselineId)}
            />
          </>
        )}
      </main>
    </div>
  );
}

/** Broken limits of the run that no channel tells of: power and torque. */
function BeyondLog({ found = [] }: { found: readonly RunFinding[] | undefined }) {
  const beyond = found.filter(({ from }) => from === 'limit');
  if (beyond.length === 0) return null;
  return (
    <FindingList>
      {beyond.map(({ id, severity, message }) => (
        <FindingLine key={id} severity={severity}>
          {message}
        </FindingLine>
      ))}
    </FindingList>
  );
}

function LogOf({
  job,
  run,
  baseline,
  by,
  colour,
}: {
  job: Job;
  run: Run;
  baseline: Run | undefined;
  by: 'speed' | 'time';
  colour: string;
}) {
  const { data: log, error } = useRunLog(job, run);
  const { data: beside } = useRunLog(job, baseline);
  if (error) return <p className={classes.message}>The log could not be read: {error.message}</p>;
  if (!log) return <div aria-busy />;
  return (
    <>
      <EventCards log={log} colour={colour} />
      <LoggerFits loggers={log.loggers} run={run} />
      <AllChannels
        log={log}
        baseline={beside}
        baselineLabel={baseline?.label ?? undefined}
        label={run.label ?? ''}
        by={by}
        colour={colour}
      />
    </>
  );
}

/** The last of the baseline's runs, to be laid beside; none beside itself. */
function besideRun(job: Job, run: Run | undefined): Run | undefined {
  const { id } = baselineSetup(job.setups, job.baseline);
  return baselineRuns(job.runs, id, job.baseline)
    .filter((other) => other.id !== run?.id)
    .at(-1);
}
