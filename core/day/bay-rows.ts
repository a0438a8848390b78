import { minuteMs, msOf, type Booking, type DayBay, type DayFacts } from './day-facts.ts';
import { workedMs, workedStretches, type WorkedStretch } from './worked-stretches.ts';

/** Where a booking stands. */
export type BookingState = 'to come' | 'running' | 'done' | 'not begun';

/** A booking with what is to be expected of it now. */
export interface ExpectedBooking extends Booking {
  fromMs: number;
  toMs: number;
  state: BookingState;
  /** When it begins or began, and when it ends or is expected to, ms. */
  expectedFromMs: number;
  expectedToMs: number;
  /** How much later than booked it ends; a booking to come: begins; min. */
  lateMin: number;
  /** Another booking that it cannot stand beside, in words. */
  conflict: string | null;
}

/** A bay, or the floor, with what is booked for it and what was really done. */
export interface BayRow {
  bay: number | null;
  name: string;
  booked: ExpectedBooking[];
  worked: WorkedStretch[];
}

/** A booking that is this much late is told of, min. */
export const lateFromMin = 10;
/** Work that is over its time and still goes on is taken to last this much longer, min: nobody knows how much. */
const leastRestMin = 10;

/**
 * The bays as rows: each with its bookings, as they are to be expected now, and what was worked. What runs takes as
 * long as it was booked for, pauses not counted; what follows in the bay begins once it has ended.
 */
export function bayRows(facts: DayFacts, bays: readonly DayBay[], nowMs: number): BayRow[] {
  const conflicts = conflictsOf(facts);
  const worked = facts.jobs.flatMap((job) =>
    workedStretches(facts, job, bays.find(({ jobId }) => jobId === job.id)?.bay, nowMs),
  );
  const known = new Set(bays.map(({ bay }) => bay));
  // A bay that is no more stands below, as long as something is booked for it.
  const gone = [...new Set(facts.bookings.flatMap(({ bay }) => (bay !== null && !known.has(bay) ? [bay] : [])))];
  const rows: Pick<BayRow, 'bay' | 'name'>[] = [
    ...bays,
    ...gone.map((bay) => ({ bay, name: `Bay ${bay}, removed` })),
    { bay: null, name: 'Floor' },
  ];
  return rows.map(({ bay, name }) => {
    const own = worked.filter((stretch) => stretch.bay === bay);
    const booked = facts.bookings.filter((booking) => booking.bay === bay);
    const mounted = bays.find((one) => one.bay === bay)?.jobId ?? null;
    return { bay, name, worked: own, booked: expected(booked, own, mounted, facts, nowMs, conflicts) };
  });
}

function expected(
  bookings: readonly Booking[],
  worked: readonly WorkedStretch[],
  mounted: number | null,
  { jobs }: DayFacts,
  nowMs: number,
  conflicts: ReadonlyMap<number, string>,
): ExpectedBooking[] {
  const inOrder = [...bookings].sort((one, other) => msOf(one.startsAt) - msOf(other.startsAt));
  // Worked stretches belong to the job's booking that lies nearest to their beginning.
  const ofBooking = (booking: Booking) =>
    worked.filter((stretch) => stretch.jobId === booking.jobId && nearest(inOrder, stretch) === booking);
  let freeFromMs = -Infinity;
  return inOrder.map((booking): ExpectedBooking => {
    const booked = { fromMs: msOf(booking.startsAt), toMs: msOf(booking.endsAt) };
    const job = jobs.find(({ id }) => id === booking.jobId);
    const own = ofBooking(booking);
    const isHere = job?.state === 'open' && booking.jobId === mounted;
    const expectedNow =
      own.length > 0 ? workedOn(booked, own, isHere, nowMs) : notBegun(booked, booking.bay === null, freeFromMs, nowMs);
    if (expectedNow.fillsBay) freeFromMs = expectedNow.expected.expectedToMs;
    // What it is called: the car, or who comes.
    const title = job?.vehicle ?? booking.title;
    return { ...booking, title, ...booked, conflict: conflicts.get(booking.id) ?? null, ...expectedNow.expected };
  });
}

type Booked = Pick<ExpectedBooking, 'fromMs' | 'toMs'>;

/** What is to be expected of one booking, and whether the bay is taken until its end. */
interface ExpectedNow {
  expected: Pick<ExpectedBooking, 'state' | 'expectedFromMs' | 'expectedToMs' | 'lateMin'>;
  fillsBay: boolean;
}

/** A booking that was worked on already: done, or what is left of its time. @param worked at least one stretch */
function workedOn(
  { fromMs, toMs }: Booked,
  worked: readonly WorkedStretch[],
  isHere: boolean,
  nowMs: number,
): ExpectedNow {
  const expectedFromMs = worked[0]!.fromMs;
  const lastMs = worked[worked.length - 1]!.toMs;
  const goesOn = isHere && nowMs <= toMs + 12 * 60 * minuteMs;
  const leftMs = Math.max(leastRestMin * minuteMs, toMs - fromMs - workedMs(worked));
  const expectedToMs = goesOn ? Math.max(lastMs, nowMs) + leftMs : lastMs;
  const state = goesOn ? 'running' : 'done';
  return { expected: { state, expectedFromMs, expectedToMs, lateMin: late(expectedToMs, toMs) }, fillsBay: true };
}

/** A booking that nobody has worked on: it begins once its time has come and the bay is free. */
function notBegun({ fromMs, toMs }: Booked, onFloor: boolean, freeFromMs: number, nowMs: number): ExpectedNow {
  const asBooked = { expectedFromMs: fromMs, expectedToMs: toMs, lateMin: 0 };
  // On the floor several cars may stand at once, and nothing tells which of them do.
  if (onFloor) return { expected: { state: floorState(fromMs, toMs, nowMs), ...asBooked }, fillsBay: false };
  if (nowMs > toMs) return { expected: { state: 'not begun', ...asBooked }, fillsBay: false };
  const expectedFromMs = Math.max(fromMs, freeFromMs, nowMs);
  const expectedToMs = expectedFromMs + toMs - fromMs;
  const state = nowMs > fromMs ? 'not begun' : 'to come';
  return { expected: { state, expectedFromMs, expectedToMs, lateMin: late(expectedFromMs, fromMs) }, fillsBay: true };
}

const floorState = (fromMs: number, toMs: number, nowMs: number): BookingState =>
  nowMs > toMs ? 'done' : nowMs >= fromMs ? 'running' : 'to come';

function nearest(bookings: readonly Booking[], { jobId, fromMs }: WorkedStretch): Booking | undefined {
  const distance = ({ startsAt, endsAt }: Booking) => Math.max(0, msOf(startsAt) - fromMs, fromMs - msOf(endsAt));
  return bookings
    .filter((booking) => booking.jobId === jobId)
    .reduce<Booking | undefined>((best, one) => (best && distance(best) <= distance(one) ? best : one), undefined);
}

const late = (isMs: number, wasMs: number) => Math.max(0, Math.round((isMs - wasMs) / minuteMs));

/** Bookings that cannot stand beside another one, in words: a bay has one car, a car is in one place. */
export function conflictsOf({ bookings, jobs }: Pick<DayFacts, 'bookings' | 'jobs'>): Map<number, string> {
  const found = new Map<number, string>();
  const nameOf = ({ title, jobId }: Booking) => jobs.find(({ id }) => id === jobId)?.vehicle ?? title;
  bookings.forEach((one, at) => {
    for (const other of bookings.slice(at + 1)) {
      const overlap = msOf(one.startsAt) < msOf(other.endsAt) && msOf(other.startsAt) < msOf(one.endsAt);
      if (!overlap) continue;
      if (one.bay !== null && one.bay === other.bay) {
        found.set(one.id, `the bay is booked for ${nameOf(other)} too`);
        found.set(other.id, `the bay is booked for ${nameOf(one)} too`);
      } else if (one.jobId !== null && one.jobId === other.jobId) {
        found.set(one.id, 'the same car is booked elsewhere at this time');
        found.set(other.id, 'the same car is booked elsewhere at this time');
      }
    }
  });
  return found;
}
