import dayjs from 'dayjs';
import type { Job } from '../../contract/job/records.ts';
import { roundsWords, tunerRounds, turnWords } from '../../core/handover/tuner-rounds.ts';
import { api } from '../state/api.ts';
import { takeAway } from '../state/undo.tsx';
import { useNow } from '../ui/use-now.ts';
import { RemoveButton } from '../ui/remove-button.tsx';
import classes from './tuner-turn.module.css';

/** Who waits for whom in the work with a remote tuner, and what went to and fro; nothing where nothing was sent. */
export function TunerTurn({ job }: { job: Job }) {
  const nowMs = useNow();
  const rounds = tunerRounds(job);
  if (!rounds) return null;
  const last = job.tunerPackages.at(-1);
  return (
    <div className={classes.turn}>
      {job.state === 'closed' ? null : <p role="status">{turnWords(rounds, nowMs)}.</p>}
      <p className="soft">{roundsWords(rounds)}</p>
      {last && rounds.turn === 'tuner' && job.state !== 'closed' && (
        <p className={classes.last}>
          <span>Last package: {dayjs(last.createdAt).format('D MMM, HH:mm')}</span>
          <RemoveButton
            what="the last package: it was not sent"
            onRemove={() => void takeAway('The package', () => api.removeEntry('tuner-packages', last.id))}
          />
        </p>
      )}
    </div>
  );
}
