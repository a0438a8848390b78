import { Button, SegmentedControl } from '@mantine/core';
import { useEffect, useMemo } from 'react';
import { Link } from 'react-router';
import type { Job } from '../../../contract/job/records.ts';
import { lastOnDyno } from '../../../core/job/last-on-dyno.ts';
import type { BorrowedCurve } from '../../../core/figures/request/borrowed-curve.ts';
import type { FiguresView } from '../../../core/figures/request/figures-request.ts';
import { writeSpan } from '../../../core/smoothing/span.ts';
import { InUnits } from '../../units/use-own-units.tsx';
import { WithJob } from '../../app/with-job.tsx';
import { SetupsColumn } from '../../setups/setups-column.tsx';
import { useLearned } from '../../state/queries.ts';
import { recordOfJob } from '../../../core/figures/request/record-of-job.ts';
import { keepForSpan, useFiguresSoon } from '../../workers/figures.ts';
import type { WorkerRequest } from '../../workers/figures.worker.ts';
import classes from './compare-stage.module.css';
import { CompareLanes } from './lanes/compare-lanes.tsx';
import { Findings } from './findings/findings.tsx';
import { ResponsePicture } from './steps/response-picture.tsx';
import { OtherRuns } from './steps/other-runs.tsx';
import { RoadTable } from './steps/road-table.tsx';
import { laneAxes, type LaneAxisId } from '../../../core/scene/lane-axis.ts';
import { LineMenu } from './lanes/line-menu.tsx';
import { LaneMenu } from './lanes/lane-menu.tsx';
import { offeredLanes } from './scene/use-logged-sides.ts';
import { Presentation } from './export/presentation.tsx';
import { SavedViews } from './export/saved-views.tsx';
import { useScene } from './scene/use-scene.ts';
import { TakeAway } from './export/take-away.tsx';
import button from '../../ui/text-button.module.css';
import { StepsPicture } from './steps/steps-picture.tsx';
import { useElsewhere } from './view/use-elsewhere.ts';
import { useCompareView } from './view/view.ts';
import type { JobFigures } from '../../../core/figures/job-figures.ts';
import { isOfTestsAlone, type CompareView } from './view/view-address.ts';

/** The stage where setups are laid over one another and decisions are made. */
export function CompareStage() {
  return <WithJob>{(job) => <Comparison job={job} />}</WithJob>;
}

function Comparison({ job }: { job: Job }) {
  const [asked, change, problems] = useCompareView(job);
  const elsewhere = useElsewhere(job, asked);
  const { view } = elsewhere;
  const { learned, pending: learning } = useLearned(lastOnDyno(job.runs)?.device, job.id);
  const hasRuns = job.runs.some((run) => run.state !== 'recording');
  const request: WorkerRequest | undefined =
    !hasRuns || elsewhere.pending || learning
      ? undefined
      : {
          job: recordOfJob({ ...job, baseline: view.frozen }),
          guest: elsewhere.guest,
          learned,
          view: figuresView(job, view, elsewhere.borrowed),
        };
  const { figures, error, isPlaceholderData, pending, tryAgain } = useFiguresSoon(request);
  const toWrite =
    view.smoothing === 'auto' && view.span === undefined && !isPlaceholderData && !pending ? figures : undefined;
  useEffect(() => {
    if (!toWrite || !request) return;
    // What auto came to is written down, so that the link shows the same figures when there are more runs.
    keepForSpan(request, toWrite);
    change({ smoothing: 'auto', span: writeSpan(toWrite.spanRpm) });
  });
  const scene = useScene(job, elsewhere.guestJob, figures, view);
  const [baselineId, testId] = [view.baseline.id, view.test.id];
  // Kept while only the crosshair or the zoom changes.
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
    <InUnits units={view.units}>
      <div className={classes.stage}>
        {column}
        <main className={classes.lanes} aria-label="Curves">
          {!view.presenting && <h1 className="seen-by-readers">Compare, {job.vehicle}</h1>}
          {problems.length > 0 && (
            <p className={classes.problem} role="alert">
              The address asks for something that is not there. {problems.map(({ sentence }) => sentence).join(' ')}{' '}
              {shownInstead(view)}{' '}
              <button
                className={button.act}
                onClick={() => change(Object.fromEntries(problems.map(({ field }) => [field, undefined])))}
              >
                Keep this view
              </button>
            </p>
          )}
          {elsewhere.problem && (
            <p className={classes.problem} role="alert">
              {elsewhere.problem}{' '}
              <button className={button.act} onClick={() => change({ from: undefined })}>
                Compare with its parent
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
                    { value: 'road', label: 'Road' },
                    { value: 'tests', label: 'Tests' },
                  ]}
                  value={view.show}
                  onChange={(show) =>
                    change({ show: show === 'curves' && !isOfTestsAlone(job) ? undefined : show }, false)
                  }
                />
                <span className={classes.acts}>
                  {view.show === 'curves' && view.zoom && (
                    <button className={button.act} onClick={() => change({ zoom: undefined })}>
                      Whole range
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
                  <TakeAway job={job} figures={figures} scene={scene} view={view} />
                  <button
                    className={button.act}
                    onClick={() => {
                      void document.documentElement.requestFullscreen().catch(() => undefined);
                      change({ present: '1', at: undefined, show: undefined }, false);
                    }}
                  >
                    Present
                  </button>
                </span>
              </div>
              {view.presenting && (
                <Presentation job={job} figures={figures} scene={scene} view={view} change={change} />
              )}
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
                <ResponsePicture job={job} figures={figures} view={view} change={change} />
              ) : view.show === 'road' ? (
                <RoadTable job={job} figures={figures} view={view} />
              ) : view.show === 'tests' ? (
                <OtherRuns job={job} figures={figures} view={view} />
              ) : (
                scene && <CompareLanes scene={scene} job={job} view={view} change={change} />
              )}
            </div>
          )}
          {!hasRuns && (
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
    </InUnits>
  );
}

/** What stands on the screen in the place of what the address named. */
function shownInstead({ test, against }: CompareView): string {
  return test.id === against.id ? `Shown is ${test.letter}.` : `Shown is ${test.letter} against ${against.letter}.`;
}

/** The view as figures are asked for; the crosshair and what only concerns the drawing left out. */
function figuresView(job: Job, view: CompareView, borrowed: BorrowedCurve | undefined): FiguresView {
  const { standard, share, crank, atRpm, raw, units, show } = view;
  return {
    standard,
    share,
    smoothing: view.smoothing === 'auto' ? (view.span ?? 'auto') : view.smoothing,
    crank,
    baselineId: view.baseline.id,
    testId: view.test.id,
    againstId: view.against.id,
    borrowed,
    testRuns: view.runs && idsOf(job, view.runs),
    againstRuns: view.againstRuns && idsOf(job, view.againstRuns),
    bands: view.bands.map(({ fromRpm, toRpm }) => [fromRpm, toRpm] as const),
    atRpm,
    raw,
    beside: show === 'steps' || show === 'response' ? show : undefined,
    tests: show === 'tests' || show === 'steps',
    respondTo: view.item,
    powerUnit: units.power,
  };
}

function idsOf(job: Job, labels: readonly string[]): number[] {
  return job.runs.filter((run) => run.label !== null && labels.includes(run.label)).map((run) => run.id);
}

/** What the lanes can stand over: a hub has no road speed. */
function axesOf({ setups }: JobFigures, { test }: CompareView): LaneAxisId[] {
  const hasRoad = setups.find(({ setupId }) => setupId === test.id)?.travel?.roadSpeedKmh !== undefined;
  return laneAxes.filter((axis) => axis !== 'road-speed' || hasRoad);
}

/** Whether the earlier figures, which stand until new ones are made, hold what is to be shown. */
function hasWhatIsShown(figures: JobFigures, { show }: CompareView): boolean {
  if (show === 'steps') return figures.attribution !== undefined;
  if (show === 'tests') return figures.tests !== undefined;
  return show !== 'response' || figures.varied !== undefined;
}
