/** The shop's day as it is stored: moments are ISO 8601. */

export type PauseReason = 'part' | 'repair' | 'file' | 'overnight' | 'owner' | 'collection' | 'other';

/** A bay booked for a job, or for somebody who has none yet; `bay` null is the floor, where no dyno is. */
export interface Booking {
  id: number;
  bay: number | null;
  jobId: number | null;
  title: string;
  work: string;
  startsAt: string;
  endsAt: string;
}

/** A job as the day looks at it. */
export interface DayJob {
  id: number;
  vehicle: string;
  plate: string;
  owner: string;
  contact: string;
  state: 'open' | 'paused' | 'closed';
  pausedFor: PauseReason | null;
  pausedWhy: string;
  pausedAt: string | null;
  expectedAt: string | null;
  closedAt: string | null;
  /** The next step, in a few words. */
  waiting: string;
  /** When runs went to a remote tuner from whom no file came back since. */
  sentAt: string | null;
  /** Points of the inspection that failed, and since when. */
  failed: readonly string[];
  failedAt: string | null;
}

export interface DayRun {
  jobId: number;
  letter: string;
  label: string;
  bay: number | null;
  startedAt: string;
  endedAt: string | null;
}

/** A change of a job's state. */
export interface StateAct {
  jobId: number;
  at: string;
  state: 'open' | 'paused' | 'closed';
  why: string;
}

/** Time that was worked on a job, put right by hand. */
export interface WorkTime {
  jobId: number;
  bay: number | null;
  startsAt: string;
  endsAt: string;
  why: string;
}

export interface DayFacts {
  bookings: readonly Booking[];
  jobs: readonly DayJob[];
  runs: readonly DayRun[];
  states: readonly StateAct[];
  workTimes: readonly WorkTime[];
}

/** A bay with the job on its dyno. */
export interface DayBay {
  bay: number;
  name: string;
  jobId: number | null;
}

export const minuteMs = 60_000;
export const msOf = (moment: string): number => Date.parse(moment);
