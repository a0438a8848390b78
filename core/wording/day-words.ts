import { lateFromMin } from '../day/bay-rows.ts';
import { minuteMs } from '../day/day-facts.ts';
import type { Call, DayPicture } from '../day/day-picture.ts';
import { capital } from '../units/spoken.ts';
import { minutesWords as secondsWords } from './minutes-words.ts';

/** Writes a moment, ms, as the shop's clock shows it: `14:10`. */
export type Clock = (ms: number) => string;

const minutesWords = (minutes: number) => secondsWords(minutes * 60);

/** How late the day is, and what cannot begin before when: the first that is moved. */
export function lateWords({ lateMin, rows }: DayPicture, clock: Clock): string {
  if (lateMin < lateFromMin) return 'the day is on time';
  const moved = rows
    .flatMap(({ booked }) => booked)
    .filter((booking) => booking.state === 'to come' && booking.lateMin >= lateFromMin)
    .sort((one, other) => one.expectedFromMs - other.expectedFromMs);
  const [first] = moved;
  const late = `the day runs ${minutesWords(lateMin)} late`;
  if (!first) return late;
  const others = moved.length > 1 ? `, ${moved.length - 1} more after it` : '';
  return `${late}; ${first.title || 'the next car'} will not begin before ${clock(first.expectedFromMs)}${others}`;
}

/** Whom to call about what, as one act: `Call Corrie Lines: Hallam minibus begins at 14:10, 45 min later`. */
export function callWords({ who, vehicle, about }: Call, clock: Clock): string {
  const whom = who || `the owner of ${vehicle}`;
  switch (about.kind) {
    case 'later':
      return `Call ${whom}: ${vehicle} begins at ${clock(about.fromMs)}, ${minutesWords(about.lateMin)} later`;
    case 'collect':
      return `Call ${whom}: ${vehicle} can be collected`;
    case 'overdue':
      return `Ask after ${vehicle}: ${about.what} is overdue`;
  }
}

/** What to do next in one sentence: the work on the dyno that is latest, then the first call. */
export function nextWords({ onDyno, calls, rows, waiting }: DayPicture, clock: Clock, nowMs: number): string {
  const [call] = calls;
  const then = call ? callWords(call, clock) : '';
  const busiest = [...onDyno].sort((one, other) => (other.booking?.lateMin ?? 0) - (one.booking?.lateMin ?? 0))[0];
  if (busiest) {
    const work = `${capital(busiest.job.waiting)}, ${busiest.job.vehicle} on ${busiest.bay.name}`;
    return then ? `${work}. Then ${then.charAt(0).toLowerCase()}${then.slice(1)}.` : `${work}.`;
  }
  const next = nextBooked(rows);
  if (next) {
    const when = next.fromMs > nowMs ? `at ${clock(next.fromMs)}` : `booked for ${clock(next.fromMs)}`;
    return `${next.title} on ${next.name}, ${when}.${then ? ` ${then}.` : ''}`;
  }
  if (then) return `${then}.`;
  if (waiting.length > 0) return 'Nothing is booked any more. What waits stands below.';
  return 'Nothing is booked, nothing is on a dyno, nobody waits.';
}

/** The booking of a dyno that begins next, or should have begun. */
const nextBooked = (rows: DayPicture['rows']) =>
  rows
    .flatMap(({ booked, name }) => booked.map((booking) => ({ ...booking, name })))
    .filter(({ state, bay }) => bay !== null && (state === 'to come' || state === 'not begun'))
    .sort((one, other) => one.expectedFromMs - other.expectedFromMs)[0];

/** How long something has lasted: minutes up to two hours, then hours up to two days, then days. */
export function sinceWords(ms: number): string {
  const minutes = Math.max(0, Math.round(ms / minuteMs));
  if (minutes < 120) return minutes === 0 ? 'just now' : minutesWords(minutes);
  const hours = Math.round(minutes / 60);
  if (hours < 48) return `${hours} h`;
  const days = Math.round(hours / 24);
  return `${days} days`;
}

/** What one shift tells the next, as a draft: what is on the dynos, who waits, whom to call, what comes next. A line each. */
export function shiftWords({ onDyno, waiting, ready, calls, rows }: DayPicture, clock: Clock): string {
  const next = nextBooked(rows);
  return [
    ...onDyno.map(({ job, bay }) => `${bay.name}: ${job.vehicle}. Next: ${job.waiting}.`),
    ...waiting.map(({ job, what, isOverdue }) => `${job.vehicle} waits for ${what}${isOverdue ? ', overdue' : ''}.`),
    ...ready.map(({ job }) => `${job.vehicle} is finished and waits to be collected.`),
    ...calls.flatMap((call) => (call.about.kind !== 'later' ? [] : [`${callWords(call, clock)}.`])),
    ...(next ? [`Next on ${next.name}: ${next.title}, booked for ${clock(next.fromMs)}.`] : []),
  ].join('\n');
}
