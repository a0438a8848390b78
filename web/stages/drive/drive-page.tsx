import { useLive } from '../../state/live.ts';
import { useJob } from '../../state/queries.ts';
import { BigFigures } from '../record/big-figures.tsx';
import classes from './drive-page.module.css';

/** For a phone or tablet in the car: the figures that matter while driving, and one word. Nothing else. */
export function DrivePage() {
  const bay = useLive((state) => state.bay);
  const connected = useLive((state) => state.connected);
  const mounted = bay?.mounted;
  const { data: job } = useJob(mounted?.jobId ?? 0, mounted !== null && mounted !== undefined);
  const setup = job?.setups.find((one) => one.id === mounted?.setupId);
  const word = wordOf(connected, bay?.recorder.state, mounted !== null && mounted !== undefined);
  return (
    <main className={classes.page} data-word={word}>
      <p className={classes.word} role="status">
        {word}
      </p>
      <p className={classes.what}>
        {setup ? `${setup.letter}, ${setup.change}${job?.gear ? `, ${job.gear} gear` : ''}` : 'No car is on the dyno.'}
      </p>
      <div className={classes.figures}>
        <BigFigures />
      </div>
      <p className={classes.caution}>This stops nothing: the agreed signal and the dyno’s own emergency stop do.</p>
    </main>
  );
}

/** Ready, go while it records, stop when the way to the recorder is lost. */
function wordOf(connected: boolean, state: string | undefined, mounted: boolean): string {
  if (!connected || state === undefined) return 'Stop: no connection';
  if (!mounted) return 'Wait';
  if (state === 'recording') return 'Go';
  if (state === 'sealing') return 'Lift';
  return state === 'armed' ? 'Ready, armed' : 'Ready';
}
