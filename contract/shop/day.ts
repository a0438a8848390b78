import { z } from 'zod';
import type { Endpoint } from '../values/endpoint.ts';
import { bayNumber, identifier, moment, trimmedText } from '../values/parts.ts';

/** The shop's day: what is booked, what was done, who waits for what. */

/** What a paused job waits for. */
export const pauseReasons = ['part', 'repair', 'file', 'overnight', 'owner', 'collection', 'other'] as const;
export type PauseReason = (typeof pauseReasons)[number];

const span = { startsAt: moment, endsAt: moment };
const longestDays = 31;
const isSpan = ({ startsAt, endsAt }: { startsAt: string; endsAt: string }) => {
  const hours = (Date.parse(endsAt) - Date.parse(startsAt)) / 3_600_000;
  return hours > 0 && hours <= 24 * longestDays;
};
const spanRule = { message: `must lie after the beginning, and within ${longestDays} days of it`, path: ['endsAt'] };

const bookingFields = z.object({
  /** Null: on the floor, where no dyno is. */
  bay: bayNumber.nullable(),
  jobId: identifier.nullable(),
  /** Who or what comes, while there is no job of it. */
  title: trimmedText(120),
  /** Kind of work, in a word or two. */
  work: trimmedText(120),
  ...span,
});

/** The same again after a day or a week, so many times in all. */
const repeat = z.object({ every: z.enum(['day', 'week']), times: z.int().min(2).max(52) });

export const newBooking = bookingFields
  .extend({ repeat: repeat.nullable().default(null) })
  .refine(isSpan, spanRule)
  .refine(({ jobId, title }) => jobId !== null || title !== '', {
    message: 'say who or what comes, or choose a job',
    path: ['title'],
  });
export type NewBooking = z.input<typeof newBooking>;

export const bookingChange = bookingFields.partial().extend({ revision: z.int().positive().optional() });
export type BookingChange = z.input<typeof bookingChange>;

export const booking = bookingFields.extend({
  id: identifier,
  revision: z.int().positive(),
  series: z.uuid().nullable(),
});
export type Booking = z.infer<typeof booking>;

/** Time worked on a job, in the place of what its acts tell for that day. */
export const workTimeFields = z
  .object({ bay: bayNumber.nullable(), ...span, why: trimmedText(300).min(1, 'say why it is put right by hand') })
  .refine(isSpan, spanRule);
export const workTime = workTimeFields.safeExtend({ id: identifier, revision: z.int().positive() });

/** A job as the day looks at it. */
export const dayJob = z.object({
  id: identifier,
  vehicle: z.string(),
  plate: z.string(),
  owner: z.string(),
  /** How the owner is reached. */
  contact: z.string(),
  question: z.string(),
  state: z.enum(['open', 'paused', 'closed']),
  pausedFor: z.enum(pauseReasons).nullable(),
  pausedWhy: z.string(),
  pausedAt: moment.nullable(),
  expectedAt: moment.nullable(),
  closedAt: moment.nullable(),
  /** The next step, in a few words. */
  waiting: z.string(),
  /** When runs went to a remote tuner from whom no file came back since. */
  sentAt: moment.nullable(),
  /** Points of the inspection that failed, and since when. */
  failed: z.array(z.string()),
  failedAt: moment.nullable(),
  lastRunAt: moment.nullable(),
});
export type DayJob = z.infer<typeof dayJob>;

/** A run of the day, as far as its time tells of the work. */
export const dayRun = z.object({
  id: identifier,
  jobId: identifier,
  letter: z.string(),
  label: z.string(),
  bay: bayNumber.nullable(),
  startedAt: moment,
  endedAt: moment.nullable(),
});

/** When the state of a job was changed: it rests between a pause and what follows. */
export const stateAct = z.object({
  jobId: identifier,
  at: moment,
  state: z.enum(['open', 'paused', 'closed']),
  why: z.string(),
});

export const day = z.object({
  bookings: z.array(booking),
  jobs: z.array(dayJob),
  runs: z.array(dayRun),
  states: z.array(stateAct),
  workTimes: z.array(workTime.safeExtend({ jobId: identifier })),
  /** Runs that were kept while no job was on the dyno. */
  unclaimedRuns: z.int().nonnegative(),
  /** Tune files that were stored in this time. */
  tuneFiles: z.int().nonnegative(),
});
export type Day = z.infer<typeof day>;

export const dayEndpoints: readonly Endpoint[] = [
  {
    method: 'get',
    path: '/day',
    does: 'What is booked and what was done between two moments (`from`, `to`), and every job that is on a dyno or waits for something.',
    query: ['from', 'to'],
    answer: day,
  },
  {
    method: 'post',
    path: '/bookings',
    does: 'Books a bay, or the floor, for a job or for somebody who comes; repeated where `repeat` says so.',
    body: newBooking,
    answer: z.array(booking),
  },
  { method: 'patch', path: '/bookings/:id', does: 'Moves or changes a booking.', body: bookingChange, answer: booking },
  {
    method: 'delete',
    path: '/bookings/:id',
    does: 'Takes a booking away, or with `series=rest` this one and those after it that repeat it; undone by its act.',
    query: ['series'],
  },
];
