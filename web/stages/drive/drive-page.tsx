import type { BayState } from '../../../contract/live.ts';
import { useEffect } from 'react';
import { useParams } from 'react-router';
import { useWatchedBay } from '../../state/bays.ts';
import { identifierIn } from '../../state/identifier.ts';
import { sound } from '../../state/cues.ts';
import { latestReading, useLive } from '../../state/live.ts';
import { usePreferences } from '../../state/preferences.ts';
import { useJob } from '../../state/queries.ts';
import { runKindWords } from '../../setups/run-kind-words.ts';
import { brokenWords } from '../../../core/limits/broken-words.ts';
import { useBrokenRuns } from '../../job/use-broken-runs.ts';
import { BigFigures } from '../../live/big-figures.tsx';
import { LimitShouts } from '../../live/limits-now.tsx';
import { useFrame } from '../../live/use-frame.ts';
import { useLimitWatch, useLiveLimits } from '../../live/watch-limits.ts';
import classes from './drive-page.module.css';

/** For a phone or tablet in the car of one bay: the figures that matter while driving, and one word. Nothing else. */
export function DrivePage() {
  useFrame(10);
  const number = identifierIn(useParams().bay);
  useWatchedBay(number);
  const several = useLive(({ bays }) => bays.length > 1);
  const bay = useLive((state) => state.bay);
  const connected = useLive((state) => state.connected);
  const mounted = bay?.mounted;
  const { data: job } = useJob(mounted?.jobId ?? 0, mounted !== null && mounted !== undefined);
  useLimitWatch(job);
  const last = job?.runs.filter(({ state }) => state !== 'recording').slice(-1);
  const [broken] = useBrokenRuns(job, last);
  const crossed = useLiveLimits((state) => state.shouts.length > 0);
  const setup = job?.setups.find((candidate) => candidate.id === mounted?.setupId);
  const limitRpm = job?.limits.find(({ quantity }) => quantity === 'engineSpeed')?.value;
  const liftRpm = bay?.plan.toRpm ?? limitRpm;
  const word = wordOf(connected, bay, crossed, liftRpm);
  useEffect(() => {
    if (word === 'Go' || word === 'Lift') sound(word === 'Go' ? 'go' : 'lift', word);
  }, [word]);
  return (
    <main className={classes.page} data-word={word}>
      <p className={classes.word} role="status">
        {word}
      </p>
      {crossed ? (
        <LimitShouts word={false} />
      ) : (
        <p className={classes.what}>
          {setup && bay
            ? `${setup.letter}, ${setup.change}, ${runKindWords[bay.plan.kind].name}${job?.gear ? `, ${job.gear} gear` : ''}${liftRpm ? `, lift at ${liftRpm.toLocaleString('en-GB')}` : ''}`
            : 'No car is on the dyno.'}
          {several && bay && <small> {bay.name}</small>}
        </p>
      )}
      {broken && bay?.recorder.state !== 'recording' && (
        <p className={classes.broken} data-testid="broken">
          ◆ {broken.label}: {broken.broken.map(brokenWords).join('; ')}
        </p>
      )}
      <div className={classes.figures}>
        <BigFigures />
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

/** Ready, go while it records, lift at the end of the pull, stop when a limit is crossed or the way to the recorder is lost. */
function wordOf(connected: boolean, bay: BayState | undefined, crossed: boolean, liftRpm: number | undefined): string {
  if (!connected || !bay) return 'Stop: no connection';
  if (!bay.mounted) return 'Wait';
  const { state } = bay.recorder;
  if (state === 'recording') {
    if (crossed) return 'Stop';
    const rpm = latestReading('engineSpeed') ?? 0;
    const throttle = latestReading('throttle') ?? 100;
    if (liftRpm !== undefined && rpm >= liftRpm && throttle > 30) return 'Lift';
    return throttle < 30 ? 'Lifted' : 'Go';
  }
  if (state === 'sealing') return 'Lifted';
  return state === 'armed' ? 'Ready, armed' : 'Ready';
}
