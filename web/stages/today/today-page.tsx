import { ActionIcon, Button, SegmentedControl } from '@mantine/core';
import { IconChevronLeft, IconChevronRight, IconPrinter, IconScreenShare } from '@tabler/icons-react';
import dayjs, { type Dayjs } from 'dayjs';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import type { Booking } from '../../../contract/shop/day.ts';
import type { DayPicture } from '../../../core/day/day-picture.ts';
import type { WorkedStretch } from '../../../core/day/worked-stretches.ts';
import { lateWords, shiftWords, sinceWords } from '../../../core/wording/day-words.ts';
import { minutesWords } from '../../../core/wording/minutes-words.ts';
import { moneyWords } from '../../../core/charges/charges.ts';
import { usePrices } from '../../state/queries.ts';
import { DueList } from '../../equipment/due-list.tsx';
import { calendarToday, useEquipment } from '../../equipment/use-equipment.ts';
import { useKeys } from '../../keys/use-keys.ts';
import { usePrint } from '../../ui/printing.ts';
import { api } from '../../state/api.ts';
import { HandOver, ShiftNotes } from './shift-notes.tsx';
import { takeAway } from '../../state/undo.tsx';
import { Keycap } from '../../ui/keycap.tsx';
import { SeverityMark } from '../../ui/severity.tsx';
import { NotFetched } from '../../ui/not-fetched.tsx';
import { BookingForm } from './booking-form.tsx';
import { DayGrid } from './day-grid.tsx';
import { DayList } from './day-list.tsx';
import { DaySide } from './day-side.tsx';
import classes from './today-page.module.css';
import { changeBooking, clockOf, useClock, useDay, useDayBays, usePicture } from './use-day.ts';
import { WeekGrid } from './week-grid.tsx';
import { WeekList } from './week-list.tsx';
import { WorkedForm } from './worked-form.tsx';

const dateForm = 'YYYY-MM-DD';
const mondayOf = (day: Dayjs) => day.subtract((day.day() + 6) % 7, 'day').startOf('day');

/** The shop's day: what now, what next, who waits. Its date and form stand in the address. */
export function TodayPage() {
  const [address, setAddress] = useSearchParams();
  const nowMs = useClock();
  const today = dayjs(nowMs).startOf('day');
  const asked = dayjs(address.get('date') ?? '');
  const date = asked.isValid() ? asked.startOf('day') : today;
  const week = address.get('view') === 'week';
  const wall = address.get('wall') === '1';
  const from = week ? mondayOf(date) : date;
  const span = { from, to: from.add(week ? 7 : 1, 'day') };
  const isToday = !nowMs ? false : week ? !today.isBefore(span.from) && today.isBefore(span.to) : date.isSame(today);
  const { data: day, error, refetch } = useDay(span);
  const bays = useDayBays();
  const picture = usePicture(day, bays, nowMs);
  const [opened, setOpened] = useState<Booking | { bay: number | null; startsAt: string }>();
  const [worked, setWorked] = useState<WorkedStretch>();
  const [handingOver, setHandingOver] = useState(false);
  const print = usePrint();
  const go = (change: Record<string, string | undefined>) =>
    setAddress(
      (before) => {
        const next = new URLSearchParams(before);
        for (const [name, value] of Object.entries(change)) {
          if (value === undefined) next.delete(name);
          else next.set(name, value);
        }
        return next;
      },
      { replace: true },
    );
  const show = (to: Dayjs) => go({ date: to.isSame(today) ? undefined : to.format(dateForm) });
  const step = (by: number) => show(date.add(by * (week ? 7 : 1), 'day'));
  const book = () => setOpened({ bay: bays[0]?.bay ?? null, startsAt: likelyStart(date, nowMs).toISOString() });
  useKeys([
    { keys: ['n'], shown: 'N', says: 'New booking', run: book },
    { keys: ['h'], shown: 'H', says: 'Hand over the shift', run: () => setHandingOver(isToday && !week) },
    {
      keys: ['w'],
      shown: 'W',
      says: week ? 'Show the day' : 'Show the week',
      run: () => go({ view: week ? undefined : 'week' }),
    },
    { keys: ['t'], shown: 'T', says: 'Show today', run: () => show(today) },
    { keys: ['['], shown: '[', says: week ? 'Show the week before' : 'Show the day before', run: () => step(-1) },
    { keys: [']'], shown: ']', says: week ? 'Show the week after' : 'Show the day after', run: () => step(1) },
    { shown: '← →', says: week ? 'Move the booking to another day' : 'Move the booking by 15 minutes' },
    { shown: 'Shift ← →', says: 'Stretch the booking' },
    { shown: '↑ ↓', says: 'Move the booking to another bay' },
    { shown: 'Del', says: 'Remove the booking' },
  ]);
  const openById = (id: number) => setOpened(day?.bookings.find((booking) => booking.id === id));
  const remove = ({ id, title }: { id: number; title: string }) =>
    void takeAway(`The booking of ${title} is`, () => api.removeBooking(id, false));
  return (
    <div className={classes.page} data-wall={wall || undefined}>
      <main className={classes.day}>
        <header className={classes.head}>
          <h1>{week ? `Week of ${from.format('D MMMM')}` : date.format('dddd, D MMMM')}</h1>
          <p>
            {!week && isToday && picture
              ? `${clockOf(nowMs)} · ${lateWords(picture, clockOf)}`
              : week
                ? `${day?.bookings.length ?? 0} bookings`
                : wayFrom(date, today)}
          </p>
          <span className={classes.tools}>
            <ActionIcon
              variant="default"
              size={40}
              aria-label={week ? 'Week before' : 'Day before'}
              onClick={() => step(-1)}
            >
              <IconChevronLeft size={18} />
            </ActionIcon>
            {!isToday && (
              <Button variant="default" onClick={() => show(today)}>
                Today
              </Button>
            )}
            <ActionIcon
              variant="default"
              size={40}
              aria-label={week ? 'Week after' : 'Day after'}
              onClick={() => step(1)}
            >
              <IconChevronRight size={18} />
            </ActionIcon>
            <SegmentedControl
              aria-label="Day or week"
              data={[
                { value: 'day', label: 'Day' },
                { value: 'week', label: 'Week' },
              ]}
              value={week ? 'week' : 'day'}
              onChange={(view) => go({ view: view === 'week' ? 'week' : undefined })}
            />
            <ActionIcon variant="default" size={40} aria-label="Print" title="Print, for the wall" onClick={print}>
              <IconPrinter size={18} />
            </ActionIcon>
            <ActionIcon
              variant="default"
              size={40}
              aria-label={wall ? 'Usual size' : 'Big screen'}
              title={wall ? 'Usual size' : 'Big screen'}
              aria-pressed={wall}
              onClick={() => go({ wall: wall ? undefined : '1' })}
            >
              <IconScreenShare size={18} />
            </ActionIcon>
          </span>
        </header>
        <NotFetched error={error} tryAgain={refetch} className={classes.problem} />
        {day && day.unclaimedRuns > 0 && (
          <p className={classes.problem}>
            <SeverityMark severity="mind" />{' '}
            {day.unclaimedRuns === 1 ? 'One run was kept' : `${day.unclaimedRuns} runs were kept`} while no job was on
            the dyno.{' '}
            <Link to="/jobs">
              Put {day.unclaimedRuns === 1 ? 'it' : 'them'} where{' '}
              {day.unclaimedRuns === 1 ? 'it belongs' : 'they belong'}
            </Link>
          </p>
        )}
        {picture && week && (
          <>
            <div className={classes.wide}>
              <WeekGrid
                picture={picture}
                from={from}
                today={today}
                onChange={(id, change) => changeBooking(span, id, change)}
                onOpen={openById}
                onRemove={remove}
              />
            </div>
            <div className={classes.narrow}>
              <WeekList picture={picture} from={from} onOpen={openById} />
            </div>
          </>
        )}
        {picture && !week && (
          <>
            <div className={classes.wide}>
              <DayGrid
                picture={picture}
                dayStartMs={date.valueOf()}
                nowMs={nowMs}
                onChange={(id, change) => changeBooking(span, id, change)}
                onOpen={openById}
                onRemove={remove}
                onWorked={setWorked}
              />
            </div>
            <div className={classes.narrow}>
              <DayList picture={picture} onOpen={openById} />
            </div>
            {day?.bookings.length === 0 && (
              <p className={classes.empty}>
                Nothing is booked for this day. “New booking” (<Keycap>N</Keycap>) books a bay; a job that is recorded
                shows here by itself.
              </p>
            )}
            <DayFoot picture={picture} day={day} nowMs={nowMs} />
          </>
        )}
        {!picture && !error && <div aria-busy className={classes.empty} />}
      </main>
      <aside className={classes.side} aria-label="What next">
        {!week && isToday && <ShiftNotes nowMs={nowMs} />}
        {picture && <DaySide picture={picture} nowMs={nowMs} isToday={isToday} />}
        <footer className={classes.acts}>
          <Button variant="default" size="md" onClick={book} rightSection={<Keycap>N</Keycap>}>
            New booking
          </Button>
          {isToday && !week && (
            <Button variant="default" size="md" onClick={() => setHandingOver(true)} rightSection={<Keycap>H</Keycap>}>
              Hand over the shift
            </Button>
          )}
        </footer>
      </aside>
      <HandOver
        opened={handingOver}
        draft={handingOver && picture ? shiftWords(picture, clockOf) : ''}
        onClose={() => setHandingOver(false)}
      />
      <BookingForm opened={opened} bays={bays} onClose={() => setOpened(undefined)} />
      <WorkedForm
        stretch={worked}
        day={day}
        vehicle={day?.jobs.find(({ id }) => id === worked?.jobId)?.vehicle ?? ''}
        onClose={() => setWorked(undefined)}
      />
    </div>
  );
}

/** The next whole quarter of an hour today, else the morning. */
function likelyStart(date: Dayjs, nowMs: number): Dayjs {
  const morning = date.hour(8);
  const next = dayjs(Math.ceil(nowMs / 900_000) * 900_000);
  return date.isSame(dayjs(nowMs).startOf('day')) && next.isAfter(morning) ? next : morning;
}

function wayFrom(date: Dayjs, today: Dayjs): string {
  const days = date.diff(today, 'day');
  if (days === 0) return '';
  if (days === 1) return 'tomorrow';
  if (days === -1) return 'yesterday';
  return days > 0 ? `in ${days} days` : `${-days} days ago`;
}

/** What is finished, and what the day came to so far. */
function DayFoot({
  picture,
  day,
  nowMs,
}: {
  picture: DayPicture;
  day: { runs: readonly unknown[]; tuneFiles: number } | undefined;
  nowMs: number;
}) {
  const { ready, handedOver, dynoMs } = picture;
  const { data: equipment } = useEquipment();
  const rate = usePrices().data?.find(({ per }) => per === 'dyno hour');
  return (
    <div className={classes.foot}>
      <section>
        <h2 className="heading">Ready to hand over</h2>
        <ul className={classes.rows}>
          {ready.map(({ job, sinceMs }) => (
            <li key={job.id}>
              <Link to={`/jobs/${job.id}/report`}>
                <b>{job.vehicle}</b>
              </Link>
              <span className="number">{sinceWords(nowMs - sinceMs)}</span>
              <small>{job.owner || 'no owner named'}</small>
              <small>{job.contact}</small>
            </li>
          ))}
          {handedOver.map((job) => (
            <li key={job.id}>
              <Link to={`/jobs/${job.id}/report`}>
                <b>{job.vehicle}</b>
              </Link>
              <span className="number">{job.closedAt ? clockOf(Date.parse(job.closedAt)) : ''}</span>
              <small>handed over</small>
            </li>
          ))}
        </ul>
        {ready.length + handedOver.length === 0 && <p className="soft">Nothing is finished yet.</p>}
      </section>
      <section>
        <h2 className="heading">Dyno hours</h2>
        <ul className={classes.rows}>
          <li>
            <b>Worked</b>
            <span className="number">
              {minutesWords(dynoMs.worked / 1000)}
              {dynoMs.booked > 0 && ` of ${minutesWords(dynoMs.booked / 1000)} booked`}
            </span>
            <small className="number">
              {rate &&
                `${moneyWords((dynoMs.worked / 3_600_000) * rate.amount, rate.currency)}${dynoMs.booked > 0 ? ` of ${moneyWords((dynoMs.booked / 3_600_000) * rate.amount, rate.currency)} booked` : ''}; `}
              {counted(day?.runs.length ?? 0, 'run')}, {counted(day?.tuneFiles ?? 0, 'tune file')}
            </small>
          </li>
        </ul>
      </section>
      <section>
        <h2 className="heading">Due</h2>
        {equipment && <DueList equipment={equipment} today={calendarToday(nowMs)} />}
      </section>
    </div>
  );
}

const counted = (count: number, noun: string) => `${count} ${noun}${count === 1 ? '' : 's'}`;
