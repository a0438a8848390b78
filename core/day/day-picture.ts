import { bayRows, lateFromMin, type BayRow, type ExpectedBooking } from './bay-rows.ts';
import type { DayBay, DayFacts, DayJob } from './day-facts.ts';
import { waitingJobs, type WaitingJob } from './waiting-jobs.ts';
import { workedMs } from './worked-stretches.ts';

/** Somebody who must hear that their time has moved, or that they can come. */
export interface Call {
  who: string;
  contact: string;
  jobId: number | null;
  /** Of what, and about what. */
  vehicle: string;
  about: { kind: 'later'; fromMs: number; lateMin: number } | { kind: 'collect' } | { kind: 'overdue'; what: string };
}

/** A job on a dyno now. */
export interface OnDyno {
  job: DayJob;
  bay: DayBay;
  /** The booking that it is worked on under; absent where it came unbooked. */
  booking?: ExpectedBooking;
}

/** The day in one look. */
export interface DayPicture {
  rows: BayRow[];
  onDyno: OnDyno[];
  /** Waiting for something; those that wait to be collected stand by themselves. */
  waiting: WaitingJob[];
  ready: WaitingJob[];
  /** Closed in this day. */
  handedOver: DayJob[];
  calls: Call[];
  /** The most that anything on this day is late, min; 0 where it is on time. */
  lateMin: number;
  /** Work at the dynos so far and booked, ms. */
  dynoMs: { worked: number; booked: number };
}

/** A part that was promised is called about once it is overdue; so is everything with a promised time. */
const calledWhenOverdue: readonly WaitingJob['reason'][] = ['part', 'repair', 'file', 'owner'];

/** What now, what next, who waits, who must be called. @param bays with the jobs on their dynos */
export function dayPicture(facts: DayFacts, bays: readonly DayBay[], nowMs: number): DayPicture {
  const rows = bayRows(facts, bays, nowMs);
  const waitingAll = waitingJobs(facts, bays, nowMs);
  const [ready, waiting] = [
    waitingAll.filter(({ reason }) => reason === 'collection'),
    waitingAll.filter(({ reason }) => reason !== 'collection'),
  ];
  const booked = rows.flatMap((row) => row.booked);
  const atDynos = rows.filter(({ bay }) => bay !== null);
  const onDyno = bays.flatMap((bay): OnDyno[] => {
    const job = facts.jobs.find(({ id }) => id === bay.jobId);
    const booking = booked.find((one) => one.jobId === bay.jobId && one.bay === bay.bay && one.state === 'running');
    return job ? [{ job, bay, ...(booking && { booking }) }] : [];
  });
  return {
    rows,
    onDyno,
    waiting,
    ready,
    handedOver: facts.jobs.filter(({ state }) => state === 'closed'),
    calls: callsOf(facts, booked, waiting, ready),
    lateMin: Math.max(0, ...booked.filter(({ state }) => state !== 'done').map(({ lateMin }) => lateMin)),
    dynoMs: {
      worked: workedMs(atDynos.flatMap((row) => row.worked)),
      booked: atDynos.flatMap((row) => row.booked).reduce((sum, { fromMs, toMs }) => sum + toMs - fromMs, 0),
    },
  };
}

function callsOf(
  { jobs }: DayFacts,
  booked: readonly ExpectedBooking[],
  waiting: readonly WaitingJob[],
  ready: readonly WaitingJob[],
): Call[] {
  const of = (jobId: number | null) => jobs.find(({ id }) => id === jobId);
  const later = booked
    .filter(({ state, lateMin }) => state === 'to come' && lateMin >= lateFromMin)
    .sort((one, other) => one.expectedFromMs - other.expectedFromMs)
    .map(({ jobId, title, expectedFromMs, lateMin }): Call => {
      const job = of(jobId);
      return {
        who: job?.owner ?? '',
        contact: job?.contact ?? '',
        jobId,
        vehicle: job?.vehicle ?? title,
        about: { kind: 'later', fromMs: expectedFromMs, lateMin },
      };
    });
  const call = ({ job }: WaitingJob, about: Call['about']): Call => ({
    who: job.owner,
    contact: job.contact,
    jobId: job.id,
    vehicle: job.vehicle,
    about,
  });
  const overdue = waiting.filter(({ isOverdue, reason }) => isOverdue && calledWhenOverdue.includes(reason));
  return [
    ...later,
    ...overdue.map((one) => call(one, { kind: 'overdue', what: one.what })),
    ...ready.map((one) => call(one, { kind: 'collect' })),
  ];
}
