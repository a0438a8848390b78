import type { Dayjs } from 'dayjs';
import { Link } from 'react-router';
import type { DayPicture } from '../../../core/day/day-picture.ts';
import { BookingLine } from './booking-line.tsx';
import classes from './today-page.module.css';

/** The week for a narrow screen: day after day, one booking a line. */
export function WeekList({
  picture,
  from,
  onOpen,
}: {
  picture: DayPicture;
  from: Dayjs;
  onOpen: (id: number) => void;
}) {
  const booked = picture.rows
    .flatMap((row) => row.booked.map((booking) => ({ ...booking, name: row.name })))
    .sort((one, other) => one.fromMs - other.fromMs);
  return [0, 1, 2, 3, 4, 5, 6].map((day) => {
    const date = from.add(day, 'day');
    const ofDay = booked.filter(({ fromMs }) => date.isSame(fromMs, 'day'));
    return (
      <section key={day} className={classes.bay}>
        <h2 className="heading">
          <Link to={`/today?date=${date.format('YYYY-MM-DD')}`}>{date.format('dddd, D MMM')}</Link>
        </h2>
        {ofDay.length === 0 && <p className="soft">Nothing booked.</p>}
        <ul>
          {ofDay.map((booking) => (
            <BookingLine
              key={booking.id}
              booking={booking}
              words={[booking.name, booking.work].filter(Boolean).join(' · ')}
              onOpen={onOpen}
            />
          ))}
        </ul>
      </section>
    );
  });
}
