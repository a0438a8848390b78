import { DndContext, PointerSensor, useDraggable, useDroppable, useSensor, useSensors } from '@dnd-kit/core';
import type { Dayjs } from 'dayjs';
import type { KeyboardEvent, ReactNode } from 'react';
import { Link } from 'react-router';
import type { Booking, BookingChange } from '../../../contract/shop/day.ts';
import type { ExpectedBooking } from '../../../core/day/bay-rows.ts';
import type { DayPicture } from '../../../core/day/day-picture.ts';
import { SeverityMark } from '../../ui/severity.tsx';
import classes from './week-grid.module.css';
import { clockOf } from './use-day.ts';

interface WeekGridProps {
  picture: DayPicture;
  from: Dayjs;
  today: Dayjs;
  /** @param change what becomes of a booking as it stands now */
  onChange: (id: number, change: (now: Booking) => BookingChange | undefined) => void;
  onOpen: (id: number) => void;
  onRemove: (booking: ExpectedBooking) => void;
}

const days = [0, 1, 2, 3, 4, 5, 6];

/** A week: bays as rows, days across. A booking is dragged to another day or bay, or moved with the arrow keys. */
export function WeekGrid({ picture, from, today, onChange, onOpen, onRemove }: WeekGridProps) {
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }));
  const { rows } = picture;
  const moved = (id: number, byDays: number, bay?: number | null) =>
    onChange(id, (now) => {
      if (byDays === 0 && (bay === undefined || bay === now.bay)) return undefined;
      return {
        startsAt: shifted(now.startsAt, byDays),
        endsAt: shifted(now.endsAt, byDays),
        ...(bay !== undefined && { bay }),
      };
    });
  const onKey = (booking: ExpectedBooking, row: number) => (event: KeyboardEvent) => {
    const way = { ArrowLeft: -1, ArrowRight: 1, ArrowUp: -1, ArrowDown: 1 }[event.key];
    if (event.key === 'Delete') onRemove(booking);
    else if (way === undefined) return;
    else if (event.key === 'ArrowUp' || event.key === 'ArrowDown') {
      const next = rows[row + way];
      if (next) moved(booking.id, 0, next.bay);
    } else moved(booking.id, way);
    event.preventDefault();
  };
  const dayOf = (ms: number) => Math.floor((ms - from.valueOf()) / 86_400_000 + 0.05);
  return (
    <DndContext
      sensors={sensors}
      onDragEnd={({ active, over }) => {
        const booking = rows.flatMap(({ booked }) => booked).find(({ id }) => id === Number(active.id));
        if (!booking || !over) return;
        const [bay, day] = String(over.id).split(' ');
        moved(booking.id, Number(day) - Math.max(0, dayOf(booking.fromMs)), bay === 'floor' ? null : Number(bay));
      }}
    >
      <div className={classes.week}>
        <span />
        {days.map((day) => {
          const date = from.add(day, 'day');
          return (
            <Link
              key={day}
              to={date.isSame(today) ? '/today' : `/today?date=${date.format('YYYY-MM-DD')}`}
              className={classes.dayName}
              data-today={date.isSame(today) || undefined}
            >
              {date.format('ddd D MMM')}
            </Link>
          );
        })}
        {rows.map(({ bay, name, booked }, row) => [
          <b key={`name ${String(bay)}`} className={classes.bayName}>
            {name}
          </b>,
          ...days.map((day) => (
            <Cell key={`${String(bay)} ${day}`} id={`${bay ?? 'floor'} ${day}`}>
              {booked
                .filter(({ fromMs }) => Math.max(0, dayOf(fromMs)) === day)
                .map((booking) => (
                  <Chip
                    key={booking.id}
                    booking={booking}
                    label={`${booking.title}, ${name}, ${from.add(day, 'day').format('dddd')} ${clockOf(booking.fromMs)} to ${clockOf(booking.toMs)}`}
                    onOpen={() => onOpen(booking.id)}
                    onKey={onKey(booking, row)}
                  />
                ))}
            </Cell>
          )),
        ])}
      </div>
    </DndContext>
  );
}

/** By the calendar: eight in the morning stays eight in the morning. */
function shifted(at: string, byDays: number): string {
  const moment = new Date(at);
  moment.setDate(moment.getDate() + byDays);
  return moment.toISOString();
}

function Cell({ id, children }: { id: string; children: ReactNode }) {
  const { setNodeRef, isOver } = useDroppable({ id });
  return (
    <div ref={setNodeRef} className={classes.cell} data-over={isOver || undefined}>
      {children}
    </div>
  );
}

interface ChipProps {
  booking: ExpectedBooking;
  label: string;
  onOpen: () => void;
  onKey: (event: KeyboardEvent) => void;
}

function Chip({ booking, label, onOpen, onKey }: ChipProps) {
  const { setNodeRef, listeners, transform } = useDraggable({ id: booking.id });
  return (
    <button
      ref={setNodeRef}
      type="button"
      className={classes.chip}
      data-state={booking.state}
      {...listeners}
      style={transform ? { transform: `translate(${transform.x}px, ${transform.y}px)` } : undefined}
      aria-label={label}
      aria-keyshortcuts="ArrowLeft ArrowRight ArrowUp ArrowDown Delete Enter"
      onClick={onOpen}
      onKeyDown={onKey}
    >
      <small className="number">
        {clockOf(booking.fromMs)}–{clockOf(booking.toMs)}
      </small>
      <b>
        {booking.conflict && <SeverityMark severity="mind" />}
        {booking.title}
      </b>
      <small>{booking.work}</small>
    </button>
  );
}
