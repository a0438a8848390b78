import { Checkbox } from '@mantine/core';
import type { Job, Setup } from '../../../../contract/job/records.ts';
import { runAdvice } from '../../../../core/advice/run-advice.ts';
import { countedRuns } from '../../../../core/job/counted.ts';
import { api } from '../../../state/api.ts';
import { useChange } from '../../../state/use-change.ts';
import { useLive } from '../../../state/live.ts';
import { FindingLine, FindingList } from '../../../ui/severity.tsx';
import { useWait } from '../../../live/use-moment.ts';
import { waitReason, waitTime } from '../../../../core/wording/moment-words.ts';
import classes from './plan.module.css';
import { minutesWords } from '../../../../core/wording/minutes-words.ts';
import { RunPlanForm } from './run-plan-form.tsx';
import type { HeatToReady } from '../../../heat/use-cooling.ts';
import type { JobFigures } from '../../../../core/figures/job-figures.ts';

interface RepeatPlanProps {
  job: Job;
  setup: Setup;
  heat: HeatToReady;
}

interface RunAdviceProps {
  job: Job;
  setup: Setup;
  baseline: Setup;
  figures: JobFigures | undefined;
}

/** How many runs are done, when the next one is due, and what the runs so far say of the next. */
export function RepeatPlan({ job, setup, heat }: RepeatPlanProps) {
  const plan = useLive((state) => state.bay?.plan);
  const counted = countedRuns(job.runs, setup.id);
  if (!plan) return null;
  return (
    <section className={classes.plan}>
      <h2 className="heading">Runs of {setup.letter}</h2>
      <div className={classes.count}>
        <b className="number">
          {counted.length} <small>of {setup.plannedRuns ?? plan.repeats}</small>
        </b>
        <Waiting job={job} heat={heat} />
      </div>
      <RunPlanForm />
      <StatedPlan job={job} setup={setup} repeats={plan.repeats} />
    </section>
  );
}

/**
 * Whether the runs are judged as one look when all are there: stated before
 * the first of them, so that nobody chooses by what they see.
 */
function StatedPlan({ job, setup, repeats }: { job: Job; setup: Setup; repeats: number }) {
  const change = useChange((plannedRuns: number | null) => api.changeSetup(setup.id, { plannedRuns }));
  const locked = job.runs.some((run) => run.setupId === setup.id);
  // What was pressed stands until the server has answered.
  const plannedRuns = change.isPending ? change.variables : setup.plannedRuns;
  if (locked)
    return (
      <p className={classes.stated}>
        {plannedRuns === null
          ? 'No plan was stated: the interval holds however often you look.'
          : `Planned: judged when ${plannedRuns === 1 ? 'its run is' : `all ${plannedRuns} are`} there.`}
      </p>
    );
  return (
    <Checkbox
      className={classes.stated}
      label={`Judge ${setup.letter} when all ${plannedRuns ?? repeats} runs are there`}
      description="A tighter interval. Nothing is claimed before, and it is fixed at the first run."
      checked={plannedRuns !== null}
      onChange={(event) => change.mutate(event.currentTarget.checked ? repeats : null)}
    />
  );
}

/** What the runs so far say of the next ones. */
export function RunAdvice({ job, setup, baseline, figures }: RunAdviceProps) {
  const repeats = useLive((state) => state.bay?.plan.repeats);
  if (repeats === undefined) return null;
  return (
    <div className={classes.advice}>
      <FindingList>
        {runAdvice(job, setup, baseline, figures, repeats).map((advice) => (
          <FindingLine key={advice.id} severity={advice.severity}>
            {advice.text}
          </FindingLine>
        ))}
      </FindingList>
    </div>
  );
}

/** The wait until rest and temperatures are as planned. Whether the bay is ready is said in one place, at the control. */
function Waiting({ job, heat }: { job: Job; heat: HeatToReady }) {
  const wait = useWait(job, heat);
  const { restedS, waitS, outside } = wait;
  if (restedS === undefined) return <span className={classes.ready}>the first run</span>;
  if (waitS <= 0)
    return (
      <span className={classes.ready} role="timer">
        rested {minutesWords(restedS)} {outside.length > 0 && <small>outside the window</small>}
      </span>
    );
  return (
    <span className={classes.ready} role="timer">
      {waitTime(wait)} <small>{waitReason(wait)}</small>
    </span>
  );
}
