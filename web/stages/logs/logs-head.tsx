import { SegmentedControl } from '@mantine/core';
import type { Job } from '../../../contract/job/records.ts';
import type { LogView } from '../../../core/log/view/log-view.ts';
import { laneAxes, axisWords } from '../../../core/scene/lane-axis.ts';
import { BesideMenu } from './beside-menu.tsx';
import { LoggerFileButton } from './logger-file/logger-file-button.tsx';
import { ShowChoice } from './fuelling/show-choice.tsx';
import classes from './logs-stage.module.css';
import { endedRuns, type LabelledRun } from './view/beside.ts';
import type { LogsView } from './view/log-address.ts';
import type { ChangeLogsView } from './view/use-logs-view.ts';

interface LogsHeadProps {
  job: Job;
  run: LabelledRun;
  log: LogView | undefined;
  view: LogsView;
  change: ChangeLogsView;
  /** Which lanes are open. */
  choice: React.ReactNode;
}

/** Which run is looked at, beside what, and over what. */
export function LogsHead({ job, run, log, view, change, choice }: LogsHeadProps) {
  const setup = job.setups.find(({ id }) => id === run.setupId);
  const hasRoad = log?.channels.some(({ road }) => road !== undefined) ?? false;
  const axes = log?.unjudged ? (['time'] as const) : laneAxes.filter((axis) => axis !== 'road-speed' || hasRoad);
  return (
    <header className={classes.head}>
      <h1>{run.label}</h1>
      <nav className={classes.runs} aria-label={`Runs of ${setup?.letter ?? ''}`}>
        {endedRuns(job)
          .filter(({ setupId }) => setupId === run.setupId)
          .map(({ id, label }) => (
            <button
              key={id}
              aria-pressed={id === run.id}
              className={classes.run}
              onClick={() => change({ run: label, at: undefined, zoom: undefined })}
            >
              {label}
            </button>
          ))}
      </nav>
      <BesideMenu job={job} run={run} view={view} change={change} />
      {choice}
      <LoggerFileButton job={job} />
      <ShowChoice view={view} change={change} />
      <SegmentedControl
        size="xs"
        aria-label="Over what"
        data={axes.map((axis) => ({ value: axis, label: axisWords[axis].name }))}
        value={view.axis}
        onChange={(axis) => change({ axis, at: undefined, zoom: undefined })}
      />
    </header>
  );
}
