import type { DayPicture } from '../../../core/day/day-picture.ts';
import { lateFromMin } from '../../../core/day/bay-rows.ts';
import { minutesWords } from '../../../core/wording/minutes-words.ts';
import { SeverityMark } from '../../ui/severity.tsx';
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
          {booked.map(({ id, title, work, fromMs, toMs, state, lateMin, expectedFromMs, expectedToMs, conflict }) => (
            <li key={id} data-state={state}>
              <button type="button" onClick={() => onOpen(id)}>
                <span className="number">
                  {clockOf(fromMs)}–{clockOf(toMs)}
                </span>
                <b>{title}</b>
                <small>
                  {[work, state === 'to come' ? '' : state].filter(Boolean).join(' · ')}
                  {lateMin >= lateFromMin &&
                    state !== 'done' &&
                    (state === 'running'
                      ? `, about ${clockOf(expectedToMs)}, ${minutesWords(lateMin * 60)} over`
                      : `, from ${clockOf(expectedFromMs)}`)}
                </small>
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
    ));
}
