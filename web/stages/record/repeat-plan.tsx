import type { Job, Setup } from '../../../contract/records.ts';
import { nextRunsAdvice } from '../../../core/gain/next-runs.ts';
import type { JobFigures } from '../../../core/gain/job-figures.ts';
import { placeInWindow } from '../../../core/heat/start-window.ts';
import { returnedTo } from '../../../core/setup/returned.ts';
import { moreRunsFor } from '../../../core/statistics/detectable.ts';
import { latestReading, useLive } from '../../state/live.ts';
import { FindingLine, FindingList } from '../../ui/severity.tsx';
import { useNow } from '../../ui/use-now.ts';
import classes from './plan.module.css';
import { baselineWindow } from './heat-now.tsx';
import { clockWords, minutesWords } from './minutes-words.ts';
import { RunPlanForm } from './run-plan-form.tsx';
import { useTimesToReady } from './use-cooling.ts';

interface RepeatPlanProps {
  job: Job;
  setup: Setup;
  baseline: Setup;
  figures: JobFigures | undefined;
}

/** How many runs are done, when the next one is due, and what the runs so far say of the next. */
export function RepeatPlan({ job, setup, baseline }: Omit<RepeatPlanProps, 'figures'>) {
  const plan = useLive((state) => state.bay?.plan);
  const counted = job.runs.filter(
    (run) => run.setupId === setup.id && run.kind === 'power' && run.setAsideReason === null,
  );
  if (!plan) return null;
  return (
    <section className={classes.plan}>
      <h2 className="heading">Runs of {setup.letter}</h2>
      <div className={classes.count}>
        <b className="number">
          {counted.length} <small>of {plan.repeats}</small>
        </b>
        <Ready job={job} baseline={baseline} coolDownMin={plan.coolDownMin} />
      </div>
      <RunPlanForm />
    </section>
  );
}

/** What the runs so far say of the next ones. */
export function RunAdvice(props: RepeatPlanProps) {
  const repeats = useLive((state) => state.bay?.plan.repeats);
  const counted = props.job.runs.filter(
    (run) => run.setupId === props.setup.id && run.kind === 'power' && run.setAsideReason === null,
  );
  if (repeats === undefined) return null;
  return (
    <div className={classes.advice}>
      <FindingList>
        {adviceFor(props, repeats, counted.length).map((advice) => (
          <FindingLine key={advice.id} severity={advice.severity}>
            {advice.text}
          </FindingLine>
        ))}
      </FindingList>
    </div>
  );
}

/** The wait until rest and temperatures are as planned. */
function Ready({ job, baseline, coolDownMin }: { job: Job; baseline: Setup; coolDownMin: number }) {
  const now = useNow();
  const window = baselineWindow(job, baseline);
  const times = useTimesToReady(window);
  const ended = Math.max(...job.runs.map((run) => (run.endedAt ? Date.parse(run.endedAt) : 0)), 0);
  if (ended === 0) return <span className={classes.ready}>Ready for the first run</span>;
  const restedS = Math.max(0, (now - ended) / 1000);
  const outside = Object.entries(window).filter(([channel, span]) => {
    const value = latestReading(channel);
    return value !== undefined && placeInWindow(value, span) !== 'inside';
  });
  const waits = outside.flatMap(([channel]) => {
    const time = times[channel];
    return time?.when === 'in' ? [time] : [];
  });
  const unknown = outside.length - waits.length;
  const restS = coolDownMin * 60 - restedS;
  const slowest = waits.reduce((a, b) => (b.seconds > a ? b.seconds : a), 0);
  const waitS = Math.max(restS, slowest);
  if (waitS <= 0 && outside.length === 0)
    return (
      <span className={classes.ready} role="timer">
        Ready <small>rested {minutesWords(restedS)}</small>
      </span>
    );
  if (waitS <= 0)
    return (
      <span className={classes.ready} role="timer">
        {unknown > 0 ? 'Outside the window' : 'Nearly ready'} <small>rested {minutesWords(restedS)}</small>
      </span>
    );
  const least = waits.reduce((a, b) => Math.max(a, b.leastS), 0);
  const most = waits.reduce((a, b) => Math.max(a, b.mostS), 0);
  const range = slowest > restS && most > 1.15 * least ? `, ${minutesWords(least)} to ${minutesWords(most)}` : '';
  return (
    <span className={classes.ready} role="timer">
      ≈ {clockWords(waitS)}{' '}
      <small>
        to ready{range}
        {slowest > restS ? ', by the cooling so far' : ', by the rest planned'}
      </small>
    </span>
  );
}

/** A change that owners ask about. */
const wantedShare = 0.01;

function adviceFor({ job, setup, baseline, figures }: RepeatPlanProps, planned: number, runs: number) {
  const parent = job.setups.find((one) => one.id === setup.parentId);
  const own = figures?.setups.find((one) => one.setupId === setup.id);
  const comparison = parent && figures?.comparison;
  const detectable = comparison?.detectable;
  const levelKw = comparison?.power.commonRange.baseline ?? own?.peakKw;
  const spreadKw = detectable?.spreadKw ?? (own && own.runs > 1 ? own.spreadKw : undefined);
  const df = comparison?.power.ranges[0]!.difference.df ?? (own ? own.runs - 1 : 0);
  return nextRunsAdvice({
    letter: setup.letter,
    parentLetter: parent?.letter ?? (setup.id === baseline.id ? undefined : baseline.letter),
    runs,
    planned,
    spreadShare: spreadKw !== undefined && levelKw ? spreadKw / levelKw : undefined,
    df: Math.round(df),
    moreRuns: detectable
      ? detectable.moreRuns
      : spreadKw !== undefined && levelKw
        ? moreRunsFor(wantedShare * levelKw, spreadKw, Math.max(1, runs), Math.max(1, runs))
        : undefined,
    wantedShare: detectable?.wantedShare ?? wantedShare,
    drift: comparison?.power.ranges[0]!.drift,
    levelKw,
    bracketed: parent !== undefined && returnedTo(job, setup.id, parent.id),
  });
}
