import type { DayPicture } from '../../../core/day/day-picture.ts';
import { lateFromMin, type ExpectedBooking } from '../../../core/day/bay-rows.ts';
import { minutesWords } from '../../../core/wording/minutes-words.ts';
import { BookingLine } from './booking-line.tsx';
import classes from './today-page.module.css';
import { clockOf } from './use-day.ts';

/** The plan for a narrow screen: bay after bay, one booking a line. */
export function DayList({ picture, onOpen }: { picture: DayPicture; onOpen: (id: number) => void }) {
  return picture.rows
    .filter(({ booked, worked, bay }) => bay !== null || booked.length + worked.length > 0)
    .map(({ bay, name, booked }) => (
      <section key={String(bay)} className={classes.bay}>
        <h2 className="heading">{name}</h2>
        {booked.length === 0 && <p className="soft">Nothing booked.</p>}
        <ul>
          {booked.map((booking) => (
            <BookingLine key={booking.id} booking={booking} words={standsOf(booking)} onOpen={onOpen} />
          ))}
        </ul>
      </section>
    ));
}

/** What is done, where it stands, and what that makes of its time. */
function standsOf({ work, state, lateMin, expectedFromMs, expectedToMs }: ExpectedBooking): string {
  const stands = [work, state === 'to come' ? '' : state].filter(Boolean).join(' · ');
  if (lateMin < lateFromMin || state === 'done') return stands;
  return state === 'running'
    ? `${stands}, about ${clockOf(expectedToMs)}, ${minutesWords(lateMin * 60)} over`
    : `${stands}, from ${clockOf(expectedFromMs)}`;
}
