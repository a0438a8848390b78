import { FuelOfJob, useOwnUnits } from '../../units/use-own-units.tsx';
import { useEffect, useMemo, type ReactNode } from 'react';
import { useParams } from 'react-router';
import type { Job } from '../../../contract/job/records.ts';
import { baselineSetup } from '../../../core/job/baseline.ts';
import { brokenWords } from '../../../core/limits/broken-words.ts';
import { liftSpeed } from '../../../core/limits/lift-speed.ts';
import { knownLimits } from '../../../core/limits/limit.ts';
import type { Moment } from '../../../core/readiness/moment.ts';
import { momentWord, whyNotReady } from '../../../core/wording/moment-words.ts';
import { baselineWindow } from '../../../core/heat/heat-of-run.ts';
import { useHeatToReady } from '../../heat/use-cooling.ts';
import { CellGrid } from '../../fuelling/cell-grid.tsx';
import { nextWords } from '../../fuelling/live-map.tsx';
import { isTable, tableOfPlan } from '../../fuelling/table-of-plan.ts';
import { useLiveFuelling } from '../../fuelling/use-live-fuelling.ts';
import { useBrokenRuns } from '../../job/use-broken-runs.ts';
import { useJobFigures } from '../../job/use-job-figures.ts';
import { BigFigure, BigFigures } from '../../live/big-figures.tsx';
import { Cautions } from '../../live/cautions.tsx';
import { LimitShouts } from '../../live/limits-now.tsx';
import { useFrame } from '../../live/use-frame.ts';
import { useMissedBand } from '../../live/use-missed-band.ts';
import { useMoment } from '../../live/use-moment.ts';
import { useLimitWatch, useLiveLimits } from '../../live/watch-limits.ts';
import { runKindWords } from '../../job/run-kind-words.ts';
import { useWatchedBay } from '../../state/bays.ts';
import { sound } from '../../state/cues.ts';
import { identifierIn } from '../../state/identifier.ts';
import { latestReading, useLive } from '../../state/live.ts';
import { usePreferences } from '../../state/preferences.ts';
import { useJob } from '../../state/queries.ts';
import { formatRpm } from '../../../core/wording/figures.ts';
import classes from './drive-page.module.css';

/** For a phone or tablet in the car of one bay: the figures that matter while driving, and one word. Nothing else. */
export function DrivePage() {
  const number = identifierIn(useParams().bay);
  useWatchedBay(number);
  const connected = useLive((state) => state.connected);
  const mounted = useLive((state) => state.bay?.mounted);
  const { data: job } = useJob(mounted?.jobId ?? 0, mounted !== null && mounted !== undefined);
  const cautionsRead = usePreferences((state) => state.cautionsRead);
  if (!cautionsRead)
    return (
      <main className={classes.first}>
        <Cautions />
      </main>
    );
  if (job && mounted)
    return (
      <FuelOfJob job={job}>
        <Driving job={job} setupId={mounted.setupId} />
      </FuelOfJob>
    );
  return <Screen word={connected ? momentWord['not mounted'] : lost} what="No car is on the dyno." />;
}

const lost = 'Stop: no connection';

/** Whatever the record stage says and lifts at, said and lifted at here. */
function Driving({ job, setupId }: { job: Job; setupId: number }) {
  useFrame(10);
  const { write } = useOwnUnits();
  const bay = useLive((state) => state.bay);
  useLimitWatch(job);
  const setup = job.setups.find(({ id }) => id === setupId);
  const baseline = baselineSetup(job.setups, job.baseline);
  const figures = useJobFigures(job, { testId: setupId });
  const last = job.runs.filter(({ state }) => state !== 'recording').slice(-1);
  const [broken] = useBrokenRuns(job, last);
  const crossed = useLiveLimits((state) => state.shouts.length > 0);
  const ends = figures?.setups.find((one) => one.setupId === baseline.id)?.power.engineSpeedRpm.at(-1);
  const liftRpm = liftSpeed(bay?.plan.toRpm, knownLimits(job.limits), ends);
  const heat = useHeatToReady(baselineWindow(job, baseline));
  const moment = useMoment({ job, setup, heat });
  const ahead = useMissedBand(job, setup, figures, moment);
  const plan = bay?.plan;
  const mapped = plan !== undefined && isTable(plan) && moment.is === 'recording';
  const layout = useMemo(() => plan && tableOfPlan(plan, job), [plan, job]);
  const table = useLiveFuelling(layout, mapped);
  const word = wordOf(moment, crossed, mapped ? undefined : liftRpm);
  useEffect(() => {
    if (word === 'Go' || word === 'Lift') sound(word === 'Go' ? 'go' : 'lift', word);
  }, [word]);
  const kind = bay && runKindWords[bay.plan.kind].name;
  const facts = [setup && `${setup.letter}, ${setup.change}`, kind, job.gear && `${job.gear} gear`];
  return (
    <Screen
      word={mapped && word !== 'Stop' ? nextWords(table) : word}
      what={facts.filter(Boolean).join(', ')}
      why={[ahead, whyNotReady(moment)].filter(Boolean).join(' ')}
      crossed={crossed}
      figure={
        liftRpm === undefined || mapped ? undefined : (
          <BigFigure label="Lift at" unit="rpm" value={formatRpm(liftRpm)} />
        )
      }
    >
      {mapped && table.cells && (
        <div className={classes.map}>
          <CellGrid axes={table.axes} cells={table.cells} present={table.present} next={table.next?.cell} large />
        </div>
      )}
      {broken && moment.is !== 'recording' && (
        <p className={classes.broken} data-testid="broken">
          ◆ {broken.label}: {broken.broken.map((limit) => write(brokenWords(limit))).join('; ')}
        </p>
      )}
    </Screen>
  );
}

interface ScreenProps {
  word: string;
  what: string;
  why?: string;
  /** A limit is crossed: that stands in the place of everything else. */
  crossed?: boolean;
  /** One more large figure, after the engine's speed. */
  figure?: ReactNode;
  children?: ReactNode;
}

function Screen({ word, what, why, crossed = false, figure, children }: ScreenProps) {
  const several = useLive(({ bays }) => bays.length > 1);
  const name = useLive((state) => state.bay?.name);
  return (
    <main className={classes.page} data-word={word} data-long={word.length > 9 || undefined}>
      <h1 className="seen-by-readers">Driver’s view</h1>
      <p className={classes.word} role="status">
        {word}
      </p>
      {crossed ? (
        <LimitShouts word={false} />
      ) : (
        <p className={classes.what}>
          {[what, several && name?.replace(/ (?=\d)/, '\u00a0')].filter(Boolean).join(', ')}
        </p>
      )}
      {why && <p className={classes.why}>{why}</p>}
      {children}
      <div className={classes.figures}>
        <BigFigures inThePlaceOfRoadSpeed={figure} />
      </div>
      <p className={classes.caution}>
        This screen cannot stop the car: the agreed signal and the dyno’s own emergency stop do.
        <Heard />
      </p>
    </main>
  );
}

/** Sound must be allowed by a touch, and chosen. */
function Heard() {
  const cues = usePreferences((state) => state.cues);
  const next = cues === 'off' ? 'beeps' : cues === 'beeps' ? 'spoken' : 'off';
  const words = { off: 'Nothing is heard', beeps: 'Beeps', spoken: 'Spoken words' } as const;
  return (
    <button
      className={classes.heard}
      onClick={() => {
        usePreferences.setState({ cues: next });
        sound('ready', 'Ready');
      }}
    >
      {words[cues]}: touch to change
    </button>
  );
}

/** The bay's state as Record says it; while it records, what the driver does: go, lift at the end of the pull, stop when a limit is crossed. */
function wordOf(moment: Moment, crossed: boolean, liftRpm: number | undefined): string {
  if (moment.is === 'no connection' || moment.is === 'no recorder') return lost;
  if (moment.is !== 'recording') return momentWord[moment.is];
  if (crossed) return 'Stop';
  const rpm = latestReading('engineSpeed') ?? 0;
  const throttle = latestReading('throttle') ?? 100;
  if (liftRpm !== undefined && rpm >= liftRpm && throttle > 30) return 'Lift';
  return throttle < 30 ? 'Lifted' : 'Go';
}
