import { Button } from '@mantine/core';
import { Link } from 'react-router';
import type { Call, DayPicture, OnDyno } from '../../../core/day/day-picture.ts';
import type { WaitingJob } from '../../../core/day/waiting-jobs.ts';
import { lateFromMin } from '../../../core/day/bay-rows.ts';
import { callWords, nextWords, sinceWords } from '../../../core/wording/day-words.ts';
import { minutesWords } from '../../../core/wording/minutes-words.ts';
import { api } from '../../state/api.ts';
import { useLive } from '../../state/live.ts';
import { useChange } from '../../state/use-change.ts';
import { SeverityMark } from '../../ui/severity.tsx';
import classes from './today-page.module.css';
import { clockOf } from './use-day.ts';

/** What now, what next, who waits and who must be called. */
export function DaySide({ picture, nowMs, isToday }: { picture: DayPicture; nowMs: number; isToday: boolean }) {
  const { onDyno, waiting, calls } = picture;
  return (
    <>
      {isToday && (
        <p className={classes.next} data-testid="next">
          {nextWords(picture, clockOf, nowMs)}
        </p>
      )}
      {onDyno.length > 0 && (
        <section>
          <h2 className="heading">On the dyno</h2>
          <ul className={classes.rows}>
            {onDyno.map((one) => (
              <OnDynoRow key={one.bay.bay} one={one} />
            ))}
          </ul>
        </section>
      )}
      {calls.length > 0 && (
        <section>
          <h2 className="heading">To call</h2>
          <ul className={classes.rows}>
            {calls.map((call) => (
              <CallRow key={`${call.vehicle} ${call.about.kind}`} call={call} />
            ))}
          </ul>
        </section>
      )}
      <section>
        <h2 className="heading">Waiting</h2>
        {waiting.length === 0 && <p className="soft">Nobody waits for anything.</p>}
        <ul className={classes.rows}>
          {waiting.map((one) => (
            <WaitingRow key={one.job.id} one={one} nowMs={nowMs} />
          ))}
        </ul>
      </section>
    </>
  );
}

function OnDynoRow({ one: { job, bay, booking } }: { one: OnDyno }) {
  const recorder = useLive(({ bays }) => bays.find((live) => live.bay === bay.bay)?.recorder);
  const doing =
    recorder?.state === 'recording' && recorder.label ? `recording ${recorder.label}` : `next: ${job.waiting}`;
  const late = booking?.lateMin ?? 0;
  return (
    <li>
      <Link to={`/jobs/${job.id}/record`}>
        <b>{job.vehicle}</b>
      </Link>
      <span className="number">{bay.name}</span>
      <small>{doing}</small>
      <small className="number">
        {booking ? (late >= lateFromMin ? `${minutesWords(late * 60)} over` : 'on time') : 'not booked'}
      </small>
    </li>
  );
}

function CallRow({ call }: { call: Call }) {
  const [whom, about] = callWords(call, clockOf).split(': ');
  return (
    <li className={classes.call}>
      {call.jobId === null ? (
        <b>{whom}</b>
      ) : (
        <Link to={`/jobs/${call.jobId}/brief`}>
          <b>{whom}</b>
        </Link>
      )}
      <small>{about}</small>
      <small className="number">{call.contact}</small>
    </li>
  );
}

function WaitingRow({ one: { job, what, sinceMs, expectedMs, isOverdue }, nowMs }: { one: WaitingJob; nowMs: number }) {
  const resume = useChange(() => api.setJobState(job.id, { state: 'open' }));
  return (
    <li>
      <Link to={`/jobs/${job.id}/brief`}>
        <b>{job.vehicle}</b>
      </Link>
      <span className="number">{sinceWords(nowMs - sinceMs)}</span>
      <small>
        for {what}
        {expectedMs !== null && (
          <>
            {isOverdue ? '; ' : ', until '}
            {isOverdue && <SeverityMark severity="mind" />}
            {isOverdue ? ` expected ${dayAndClock(expectedMs, nowMs)}` : dayAndClock(expectedMs, nowMs)}
          </>
        )}
      </small>
      {job.state === 'paused' && (
        <Button
          variant="subtle"
          color="gray"
          size="compact-sm"
          loading={resume.isPending}
          onClick={() => resume.mutate()}
        >
          Resume
        </Button>
      )}
    </li>
  );
}

/** A moment as it is said beside today: the clock alone, or with its day. */
export function dayAndClock(ms: number, nowMs: number): string {
  const then = new Date(ms);
  if (then.toDateString() === new Date(nowMs).toDateString()) return clockOf(ms);
  return `${then.toLocaleDateString('en-GB', { weekday: 'short', day: 'numeric', month: 'short' })}, ${clockOf(ms)}`;
}
