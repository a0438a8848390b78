import { useState, type ComponentProps } from 'react';
import { useSearchParams } from 'react-router';
import type { Job, Run, Setup } from '../../../contract/job/records.ts';
import { baselineSetup, newestSetup } from '../../../core/job/baseline.ts';
import { knownLimits } from '../../../core/limits/limit.ts';
import { liftSpeed } from '../../../core/limits/lift-speed.ts';
import { baselineWindow } from '../../../core/heat/heat-of-run.ts';
import { useHeatToReady, type HeatToReady } from '../../heat/use-cooling.ts';
import { useMissedBand } from '../../live/use-missed-band.ts';
import { useMoment } from '../../live/use-moment.ts';
import { isTable } from '../../fuelling/table-of-plan.ts';
import { WithJob } from '../../app/with-job.tsx';
import { SetupsColumn } from '../../setups/setups-column.tsx';
import { api } from '../../state/api.ts';
import { bayForJob, useWatchedBay } from '../../state/bays.ts';
import { identifierIn } from '../../state/identifier.ts';
import { useLive } from '../../state/live.ts';
import { useChange } from '../../state/use-change.ts';
import type { JobFigures } from '../../../core/figures/job-figures.ts';
import { useJobFigures } from '../../job/use-job-figures.ts';
import { BigFigures } from '../../live/big-figures.tsx';
import { ControlBar } from './during/control-bar.tsx';
import { FuellingMap } from './during/fuelling-map.tsx';
import { LiveLanes } from './during/live-lanes.tsx';
import classes from './record-stage.module.css';
import { RunResult } from './after/run-result.tsx';
import { BeforeRun } from './before/before-run.tsx';
import { LimitsKept } from '../../live/limits-now.tsx';
import { useCues } from './during/use-cues.ts';
import { useLimitWatch } from '../../live/watch-limits.ts';
import { Trouble } from './during/trouble.tsx';

/** The stage in the car or at the console: ready, recording, result. Of a job, in the bay where it is or is to be. */
export function RecordStage() {
  return <WithJob>{(job) => <OfJob job={job} />}</WithJob>;
}

function OfJob({ job }: { job: Job }) {
  const bays = useLive((state) => state.bays);
  const [address, setAddress] = useSearchParams();
  const bay = bayForJob(bays, job.id, identifierIn(address.get('bay') ?? undefined));
  useWatchedBay(bay?.bay);
  // The page begins anew when another bay is chosen, but not when the first bay becomes known: a dialog that was opened
  // before stays.
  const [first, setFirst] = useState<number>();
  if (bay && first === undefined) setFirst(bay.bay);
  const isFirst = bay === undefined || first === undefined || bay.bay === first;
  return (
    <Recording
      job={job}
      key={`${job.id} ${isFirst ? 'first' : bay.bay}`}
      onBay={(chosen) => setAddress({ bay: String(chosen) }, { replace: true })}
    />
  );
}

interface RecordingProps {
  job: Job;
  /** Another bay is chosen for a job that is on no dyno. */
  onBay: (bay: number) => void;
}

/** A job in the bay that is watched. */
export function Recording({ job, onBay }: RecordingProps) {
  const bay = useLive((state) => state.bay);
  const onDyno = bay?.mounted?.jobId === job.id ? bay.mounted.setupId : undefined;
  const mounted = job.setups.find(({ id }) => id === onDyno);
  const setup = mounted ?? newestSetup(job.setups);
  const baseline = baselineSetup(job.setups, job.baseline);
  const result = useResult(job);
  const figures = useJobFigures(job, { testId: setup.id });
  const hasRuns = job.runs.some((run) => run.state !== 'recording');
  const watched = useLive((state) => state.watched);
  const mount = useChange((setupId: number) => api.mount(watched, { jobId: job.id, setupId }));
  const move = useChange((to: number) => api.mount(to, { jobId: job.id, setupId: setup.id }));
  const recording = mounted !== undefined && bay?.recorder.state === 'recording';
  const baselineFigures = figures?.setups.find((candidate) => candidate.setupId === baseline.id);
  useLimitWatch(job);
  const liftRpm = liftSpeed(bay?.plan.toRpm, knownLimits(job.limits), baselineFigures?.power.engineSpeedRpm.at(-1));
  useCues(liftRpm, result.run);
  const heat = useHeatToReady(baselineWindow(job, baseline));
  return (
    <div className={recording ? classes.recording : classes.stage}>
      {!recording && (
        <SetupsColumn
          job={job}
          figures={figures}
          baselineId={baseline.id}
          chosenId={setup.id}
          choosing="put it on the dyno"
          onChoose={(chosen) => mount.mutate(chosen.id)}
          onAdded={(added) => mount.mutate(added.id)}
          hotkey={result.run === undefined}
          gloved
        />
      )}
      <main className={classes.main} aria-label="Recording">
        <h1 className="seen-by-readers">Record, {job.vehicle}</h1>
        {recording && (
          <div className={classes.shouts}>
            <LimitsKept />
          </div>
        )}
        <BigFigures />
        <div className={classes.middle}>
          {bay && isTable(bay.plan) ? (
            <FuellingMap job={job} plan={bay.plan} going={recording} />
          ) : (
            <LiveLanes
              job={job}
              setup={setup}
              baseline={baseline}
              ghost={baselineFigures}
              liftRpm={liftRpm}
              pending={hasRuns && figures === undefined}
            />
          )}
          <aside className={classes.side} aria-label={result.run ? 'Result' : 'Before the run'}>
            <Trouble />
            {result.run && !recording ? (
              <RunResult
                key={result.run.id}
                job={job}
                run={result.run}
                figures={figures}
                setup={setup}
                baseline={baseline}
                onAdded={(added) => mount.mutate(added.id)}
                onDone={result.dismiss}
              />
            ) : (
              <BeforeRun
                job={job}
                setup={setup}
                baseline={baseline}
                figures={figures}
                heat={heat}
                recording={recording}
              />
            )}
          </aside>
        </div>
        <Control
          job={job}
          setup={setup}
          mounted={mounted}
          heat={heat}
          figures={figures}
          resultOpen={result.run !== undefined}
          isBaseline={setup.id === baseline.id}
          onMount={() => mount.mutate(setup.id)}
          onBay={(chosen) => (mounted ? move.mutate(chosen) : onBay(chosen))}
          onArm={result.dismiss}
        />
      </main>
    </div>
  );
}

/** Kept apart from the stage because its state changes every second. */
function Control({
  heat,
  mounted,
  resultOpen,
  figures,
  ...bar
}: Omit<ComponentProps<typeof ControlBar>, 'moment' | 'ahead'> & {
  heat: HeatToReady;
  figures: JobFigures | undefined;
  mounted: Setup | undefined;
  resultOpen: boolean;
}) {
  const moment = useMoment({ job: bar.job, setup: mounted, heat, resultOpen });
  const ahead = useMissedBand(bar.job, mounted, figures, moment);
  return <ControlBar {...bar} moment={moment} ahead={ahead} />;
}

/** The run that ended last while this page was open, until it is dealt with. */
function useResult(job: Job): { run: Run | undefined; dismiss: () => void } {
  const lastRunId = useLive((state) => state.bay?.recorder.lastRunId);
  const [settled, setSettled] = useState<number | null | undefined>(lastRunId);
  // Runs that had ended before this page knew of the bay are not shown as a result.
  if (settled === undefined && lastRunId !== undefined) setSettled(lastRunId);
  const run =
    settled !== undefined && lastRunId !== settled
      ? job.runs.find((candidate) => candidate.id === lastRunId)
      : undefined;
  return { run: run?.state === 'recording' ? undefined : run, dismiss: () => setSettled(lastRunId) };
}
