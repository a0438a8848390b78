import { Button, SegmentedControl } from '@mantine/core';
import { useEffect, useMemo } from 'react';
import { Link } from 'react-router';
import type { Job } from '../../../contract/records.ts';
import type { JobFigures } from '../../../core/gain/job-figures.ts';
import { usualGridRpm } from '../../../core/reduction/reduce.ts';
import { writeSpan } from '../../../core/smoothing/span.ts';
import { WithJob } from '../../app/with-job.tsx';
import { SetupsColumn } from '../../setups/setups-column.tsx';
import { useDynoSpread } from '../../state/queries.ts';
import { useFiguresSoon } from '../../workers/figures.ts';
import type { WorkerRequest } from '../../workers/figures.worker.ts';
import classes from './compare-stage.module.css';
import { CompareLanes } from './compare-lanes.tsx';
import { Findings } from './findings.tsx';
import { ResponsePicture } from './response-picture.tsx';
import { laneAxes, type LaneAxisId } from './lane-axis.ts';
import { LineMenu } from './line-menu.tsx';
import { LaneMenu } from './lane-menu.tsx';
import { offeredLanes } from './use-logged-sides.ts';
import { Presentation } from './presentation.tsx';
import { SavedViews } from './saved-views.tsx';
import { TakeAway } from './take-away.tsx';
import how from './how-made.module.css';
import { StepsPicture } from './steps-picture.tsx';
import { useElsewhere } from './use-elsewhere.ts';
import { useCompareView, type CompareView } from './view.ts';

/** The stage where setups are laid over one another and decisions are made. */
export function CompareStage() {
  return <WithJob>{(job) => <Comparison job={job} />}</WithJob>;
}

function Comparison({ job }: { job: Job }) {
  const [asked, change] = useCompareView(job);
  const elsewhere = useElsewhere(job, asked);
  const { view } = elsewhere;
  const ownSpread = useDynoSpread(job.runs.at(-1)?.device);
  const finished = job.runs.filter((run) => run.state !== 'recording');
  const request: WorkerRequest | undefined =
    finished.length === 0 || elsewhere.pending
      ? undefined
      : {
          job: {
            setups: job.setups,
            runs: finished,
            baseline: view.frozen,
            ignition: job.car.ignition,
            vehicle: job.vehicle,
          },
          guest: elsewhere.guest,
          borrowed: elsewhere.borrowed,
          baselineId: view.baseline.id,
          testId: view.test.id,
          againstId: view.against.id,
          settings: { standard: view.standard, share: view.share, gridRpm: usualGridRpm },
          smoothing: view.smoothing === 'auto' ? (view.span ?? 'auto') : view.smoothing,
          bands: view.band && [view.band],
          testRuns: view.runs && idsOf(job, view.runs),
          againstRuns: view.againstRuns && idsOf(job, view.againstRuns),
          crank: view.crank,
          atRpm: view.atRpm,
          raw: view.raw,
          beside: view.show === 'curves' ? undefined : view.show,
          respondTo: view.item,
          powerUnit: view.powerUnit,
          dyno: ownSpread,
        };
  const { figures, error, isPlaceholderData, pending, tryAgain } = useFiguresSoon(request);
  const resolved =
    view.smoothing === 'auto' && view.span === undefined && !isPlaceholderData && !pending
      ? figures?.spanRpm
      : undefined;
  useEffect(() => {
    // What auto came to is written down, so that the link shows the same figures when there are more runs.
    if (resolved !== undefined) change({ smoothing: 'auto', span: writeSpan(resolved) });
  });
  const [baselineId, testId] = [view.baseline.id, view.test.id];
  // A crosshair that moves, or a zoom, leaves the column as it is.
  const column = useMemo(
    () => (
      <SetupsColumn
        job={job}
        figures={figures}
        pending={pending}
        baselineId={baselineId}
        chosenId={testId}
        choosing="compare it"
        onChoose={(setup) =>
          change(
            { setup: setup.letter, against: undefined, from: undefined, runs: undefined, againstRuns: undefined },
            false,
          )
        }
        onAdded={() => undefined}
      />
    ),
    [job, figures, pending, baselineId, testId, change],
  );
  return (
    <div className={classes.stage}>
      {column}
      <main className={classes.lanes} aria-label="Curves">
        {elsewhere.problem && (
          <p className={classes.problem} role="alert">
            {elsewhere.problem}{' '}
            <button className={how.export} onClick={() => change({ from: undefined })}>
              compare with its parent
            </button>
          </p>
        )}
        {figures && (
          <div className={classes.shown}>
            <div className={classes.top}>
              <SegmentedControl
                size="sm"
                aria-label="What is shown"
                data={[
                  { value: 'curves', label: 'Curves' },
                  { value: 'steps', label: 'Steps' },
                  { value: 'response', label: 'Response' },
                ]}
                value={view.show}
                onChange={(show) => change({ show: show === 'curves' ? undefined : show }, false)}
              />
              <span className={classes.acts}>
                {view.show === 'curves' && view.zoom && (
                  <button className={how.export} onClick={() => change({ zoom: undefined })}>
                    whole range <kbd>0</kbd>
                  </button>
                )}
                {view.show === 'curves' && <LineMenu job={job} view={view} change={change} />}
                {view.show === 'curves' && (
                  <LaneMenu
                    view={view}
                    offered={offeredLanes(job, view)}
                    axes={axesOf(figures, view)}
                    change={change}
                  />
                )}
                <SavedViews job={job} />
                <TakeAway job={job} figures={figures} view={view} />
                <button
                  className={how.export}
                  onClick={() => {
                    void document.documentElement.requestFullscreen().catch(() => undefined);
                    change({ present: '1', at: undefined, show: undefined }, false);
                  }}
                >
                  show the owner
                </button>
              </span>
            </div>
            {view.presenting && <Presentation job={job} figures={figures} view={view} change={change} />}
            {isPlaceholderData && !hasWhatIsShown(figures, view) ? (
              <div aria-busy />
            ) : view.show === 'steps' ? (
              <StepsPicture
                job={job}
                figures={figures}
                view={view}
                onChoose={(letter) => change({ setup: letter, against: undefined, show: undefined }, false)}
              />
            ) : view.show === 'response' ? (
              <ResponsePicture figures={figures} view={view} change={change} />
            ) : (
              <CompareLanes job={job} guest={elsewhere.guestJob} figures={figures} view={view} change={change} />
            )}
          </div>
        )}
        {finished.length === 0 && (
          <div className={classes.message}>
            <h2>No run to compare yet</h2>
            <p>
              Record a baseline on{' '}
              <Link to="../record" relative="path">
                Record
              </Link>
              : three runs or more, back to back. Or import a recording from the setups column.
            </p>
          </div>
        )}
        {error && (
          <div className={classes.message} role="alert">
            <p>The figures could not be made: {error.message}.</p>
            <Button variant="default" onClick={tryAgain}>
              Try again
            </Button>
          </div>
        )}
      </main>
      <aside className={classes.findings} aria-label="Findings">
        {figures && <Findings job={job} figures={figures} view={view} change={change} />}
      </aside>
    </div>
  );
}

function idsOf(job: Job, labels: readonly string[]): number[] {
  return job.runs.filter((run) => run.label !== null && labels.includes(run.label)).map((run) => run.id);
}

/** What the lanes can stand over: a hub has no road speed. */
function axesOf({ setups }: JobFigures, { test }: CompareView): LaneAxisId[] {
  const hasRoad = setups.find(({ setupId }) => setupId === test.id)?.travel?.roadSpeedKmh !== undefined;
  return laneAxes.filter((axis) => axis !== 'road-speed' || hasRoad);
}

/** Whether figures that stand until new ones are made hold what is to be shown. */
function hasWhatIsShown(figures: JobFigures, { show }: CompareView): boolean {
  return show === 'curves' || (show === 'steps' ? figures.attribution : figures.varied) !== undefined;
}
