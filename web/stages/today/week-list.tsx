import type { Dayjs } from 'dayjs';
import { Link } from 'react-router';
import type { DayPicture } from '../../../core/day/day-picture.ts';
import { SeverityMark } from '../../ui/severity.tsx';
import classes from './today-page.module.css';
import { clockOf } from './use-day.ts';

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
          {ofDay.map(({ id, title, work, fromMs, toMs, state, name, conflict }) => (
            <li key={id} data-state={state}>
              <button type="button" onClick={() => onOpen(id)}>
                <span className="number">
                  {clockOf(fromMs)}–{clockOf(toMs)}
                </span>
                <b>{title}</b>
                <small>{[name, work].filter(Boolean).join(' · ')}</small>
                {conflict && (
                  <small>
                    <SeverityMark severity="mind" /> {conflict}
                  </small>
                )}
              </button>
            </li>
          ))}
        </ul>
      </section>
    );
  });
}
