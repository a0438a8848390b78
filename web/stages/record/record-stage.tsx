import { useState } from 'react';
import type { Job, Run } from '../../../contract/records.ts';
import { usualGridRpm } from '../../../core/reduction/reduce.ts';
import { WithJob } from '../../app/with-job.tsx';
import { SetupsColumn } from '../../setups/setups-column.tsx';
import { api } from '../../state/api.ts';
import { useLive } from '../../state/live.ts';
import { usePreferences } from '../../state/preferences.ts';
import { useChange, useDynoSpread } from '../../state/queries.ts';
import { useFigures } from '../../workers/figures.ts';
import { BigFigures } from './big-figures.tsx';
import { ControlBar } from './control-bar.tsx';
import { LiveLanes } from './live-lanes.tsx';
import classes from './record-stage.module.css';
import { RunResult } from './run-result.tsx';
import { BeforeRun } from './before-run.tsx';
import { LimitShouts } from './limits-now.tsx';
import { useCues } from './use-cues.ts';
import { useLimitWatch } from './watch-limits.ts';
import { Trouble } from './trouble.tsx';

/** The stage in the car or at the console: ready, recording, result. */
export function RecordStage() {
  return <WithJob>{(job) => <Recording job={job} key={job.id} />}</WithJob>;
}

function Recording({ job }: { job: Job }) {
  const bay = useLive((state) => state.bay);
  const { standard, powerUnit } = usePreferences();
  const mounted =
    bay?.mounted?.jobId === job.id ? job.setups.find((setup) => setup.id === bay.mounted!.setupId) : undefined;
  const setup = mounted ?? job.setups.at(-1)!;
  const baseline = job.setups[0]!;
  const result = useResult(job);
  const ownSpread = useDynoSpread(job.runs.at(-1)?.device);
  const finished = job.runs.filter((run) => run.state !== 'recording');
  const { data: figures } = useFigures(
    finished.length === 0
      ? undefined
      : {
          job: {
            setups: job.setups,
            runs: finished,
            baseline: job.baseline,
            ignition: job.car.ignition,
            vehicle: job.vehicle,
          },
          baselineId: baseline.id,
          testId: setup.id,
          againstId: setup.parentId ?? baseline.id,
          settings: { standard, share: 1, gridRpm: usualGridRpm },
          smoothing: 'auto',
          powerUnit,
          dyno: ownSpread,
        },
  );
  const mount = useChange((setupId: number) => api.mount({ jobId: job.id, setupId }));
  const recording = mounted !== undefined && bay?.recorder.state === 'recording';
  const baselineFigures = figures?.setups.find((one) => one.setupId === baseline.id);
  useLimitWatch(job);
  useCues(bay?.plan.toRpm ?? baselineFigures?.power.engineSpeedRpm.at(-1), result.run);
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
        {recording && <LimitShouts />}
        <BigFigures />
        <div className={classes.middle}>
          <LiveLanes
            setup={setup}
            isBaseline={setup.id === baseline.id}
            ghost={baselineFigures}
            pending={finished.length > 0 && figures === undefined}
          />
          <aside className={classes.side} aria-label={result.run ? 'Result' : 'Before the run'}>
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
              <BeforeRun job={job} setup={setup} baseline={baseline} figures={figures} recording={recording} />
            )}
            <Trouble />
          </aside>
        </div>
        <ControlBar
          job={job}
          setup={setup}
          mounted={mounted !== undefined}
          isBaseline={setup.id === baseline.id}
          onMount={() => mount.mutate(setup.id)}
          onArm={result.dismiss}
        />
      </main>
    </div>
  );
}

/** The run that ended last while this page was open, until it is dealt with. */
function useResult(job: Job): { run: Run | undefined; dismiss: () => void } {
  const lastRunId = useLive((state) => state.bay?.recorder.lastRunId);
  const [settled, setSettled] = useState<number | null | undefined>(lastRunId);
  // What had ended before this page knew of the bay is no news.
  if (settled === undefined && lastRunId !== undefined) setSettled(lastRunId);
  const run = settled !== undefined && lastRunId !== settled ? job.runs.find((one) => one.id === lastRunId) : undefined;
  return { run: run?.state === 'recording' ? undefined : run, dismiss: () => setSettled(lastRunId) };
}
