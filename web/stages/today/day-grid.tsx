import { DndContext, PointerSensor, useSensor, useSensors, type DragEndEvent } from '@dnd-kit/core';
import { useRef, type CSSProperties, type KeyboardEvent } from 'react';
import type { Booking, BookingChange } from '../../../contract/shop/day.ts';
import type { ExpectedBooking } from '../../../core/day/bay-rows.ts';
import type { DayPicture } from '../../../core/day/day-picture.ts';
import { minuteMs } from '../../../core/day/day-facts.ts';
import type { WorkedStretch } from '../../../core/day/worked-stretches.ts';
import { minutesWords } from '../../../core/wording/minutes-words.ts';
import { lateFromMin } from '../../../core/day/bay-rows.ts';
import { deviceKindWords } from '../../live/device-kind-words.ts';
import { useLive } from '../../state/live.ts';
import { BookingBlock } from './booking-block.tsx';
import { hoursShown, laneHeight, movedMin, placedRows, rowAt, stepMin, type PlacedRow } from './day-layout.ts';
import classes from './day-grid.module.css';
import { clockOf } from './use-day.ts';

interface DayGridProps {
  picture: DayPicture;
  dayStartMs: number;
  nowMs: number;
  /** @param change what becomes of a booking as it stands now */
  onChange: (id: number, change: (now: Booking) => BookingChange | undefined) => void;
  onOpen: (booking: Booking['id']) => void;
  onRemove: (booking: ExpectedBooking) => void;
  onWorked: (stretch: WorkedStretch) => void;
}

const later = (moment: string, minutes: number) => new Date(Date.parse(moment) + minutes * minuteMs).toISOString();

/** A pointer that moves further than this drags, and does not press, px. */
const dragFromPx = 6;
const hourMs = 60 * minuteMs;

/** The bays as rows, the hours across: above what is booked, under it what was really done and what is to be expected. */
export function DayGrid({ picture, dayStartMs, nowMs, onChange, onOpen, onRemove, onWorked }: DayGridProps) {
  const { fromMs, toMs } = hoursShown(picture.rows, dayStartMs, nowMs);
  const placed = placedRows(picture.rows);
  const track = useRef<HTMLDivElement>(null);
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: dragFromPx } }));
  const share = (ms: number) => ((Math.min(toMs, Math.max(fromMs, ms)) - fromMs) / (toMs - fromMs)) * 100;
  const across = (from: number, to: number): { left: string; width: string } => ({
    left: `${share(from)}%`,
    width: `${Math.max(0.3, share(to) - share(from))}%`,
  });
  const hours = Array.from({ length: Math.round((toMs - fromMs) / hourMs) + 1 }, (_, hour) => fromMs + hour * hourMs);
  const all = placed.flatMap((place) => place.row.booked.map((booking) => ({ booking, place })));

  const moved = (id: number, minutes: number, bay?: number | null) =>
    onChange(id, (now) => {
      if (minutes === 0 && (bay === undefined || bay === now.bay)) return undefined;
      return {
        startsAt: later(now.startsAt, minutes),
        endsAt: later(now.endsAt, minutes),
        ...(bay !== undefined && { bay }),
      };
    });
  const stretched = (id: number, minutes: number) =>
    onChange(id, (now) => {
      const endsAt = later(now.endsAt, minutes);
      return endsAt === now.endsAt || endsAt < later(now.startsAt, stepMin) ? undefined : { endsAt };
    });
  const dropped = ({ active, delta }: DragEndEvent) => {
    const [act, id] = String(active.id).split(' ');
    const found = all.find(({ booking }) => booking.id === Number(id));
    const width = track.current?.clientWidth ?? 0;
    if (!found || width === 0) return;
    const minutes = movedMin(delta.x, width, toMs - fromMs);
    if (act === 'stretch') return stretched(found.booking.id, minutes);
    const { place, booking } = found;
    const middle = place.topPx + (place.lanes.get(booking.id) ?? 0) * laneHeight + laneHeight / 2;
    moved(booking.id, minutes, (rowAt(placed, middle + delta.y) ?? place).row.bay);
  };
  const onKey = (booking: ExpectedBooking, place: PlacedRow) => (event: KeyboardEvent) => {
    const way = { ArrowLeft: -1, ArrowRight: 1, ArrowUp: -1, ArrowDown: 1 }[event.key];
    if (event.key === 'Delete') onRemove(booking);
    else if (way === undefined || event.ctrlKey || event.metaKey || event.altKey) return;
    else if (event.key === 'ArrowUp' || event.key === 'ArrowDown') {
      const next = placed[placed.indexOf(place) + way];
      if (next) moved(booking.id, 0, next.row.bay);
    } else if (event.shiftKey) stretched(booking.id, way * stepMin);
    else moved(booking.id, way * stepMin);
    event.preventDefault();
  };
  const kinds = useBayKinds();
  const last = placed.at(-1);
  const height = last ? last.topPx + last.heightPx : 0;
  const isToday = nowMs >= dayStartMs && nowMs < dayStartMs + 24 * hourMs;
  return (
    <div className={classes.grid}>
      <div className={classes.names} style={{ height }}>
        {placed.map(({ row, topPx, heightPx }) => (
          <div key={String(row.bay)} style={{ top: topPx - 10, height: heightPx }}>
            <b>{row.name}</b>
            <small>{row.bay === null ? 'no dyno' : kinds.get(row.bay)}</small>
          </div>
        ))}
      </div>
      <div className={classes.hours} aria-hidden>
        {hours.map((ms) => (
          <span key={ms} style={{ left: `${share(ms)}%` }}>
            {clockOf(ms)}
          </span>
        ))}
      </div>
      <div className={classes.track} ref={track} style={{ height }} role="group" aria-label="Bookings">
        {hours.map((ms) => (
          <i key={ms} className={classes.hour} style={{ left: `${share(ms)}%` }} />
        ))}
        {placed.map(({ row, topPx, heightPx }) => (
          <i key={String(row.bay)} className={classes.rule} style={{ top: topPx - 10 + heightPx }} />
        ))}
        {placed.map(({ row, workedPx }) => (
          <Worked
            key={String(row.bay)}
            stretches={row.worked}
            top={workedPx}
            across={across}
            share={share}
            onOpen={onWorked}
          />
        ))}
        {all.map(({ booking, place }) => (
          <Expected key={booking.id} booking={booking} top={place.workedPx} across={across} nowMs={nowMs} />
        ))}
        <DndContext sensors={sensors} onDragEnd={dropped}>
          {all.map(({ booking, place }) => (
            <BookingBlock
              key={booking.id}
              booking={booking}
              bayName={place.row.name}
              style={{
                ...across(booking.fromMs, booking.toMs),
                top: place.topPx + (place.lanes.get(booking.id) ?? 0) * laneHeight,
              }}
              onOpen={() => onOpen(booking.id)}
              onKey={onKey(booking, place)}
            />
          ))}
        </DndContext>
        {isToday && (
          <span className={classes.now} style={{ left: `${share(nowMs)}%` }} aria-hidden>
            <b>{clockOf(nowMs)}</b>
          </span>
        )}
      </div>
    </div>
  );
}

/** What kind of dyno stands in each bay, as far as one is connected. */
function useBayKinds(): Map<number, string> {
  const bays = useLive((live) => live.bays);
  return new Map(
    bays.flatMap(({ bay, devices }) => {
      const kind = devices.find(({ dyno }) => dyno)?.kind;
      return kind ? [[bay, deviceKindWords[kind]] as const] : [];
    }),
  );
}

type Across = (from: number, to: number) => CSSProperties;

interface WorkedProps {
  stretches: readonly WorkedStretch[];
  top: number;
  across: Across;
  share: (ms: number) => number;
  onOpen: (stretch: WorkedStretch) => void;
}

/** What was really done: dark while it goes on, a pause with its reason; every run a light mark. */
function Worked({ stretches, top, across, share, onOpen }: WorkedProps) {
  return stretches.map((stretch) => {
    const { fromMs, toMs, kind, why, runsMs, runWords, goesOn, jobId, byHand } = stretch;
    const words = kind === 'pause' ? why || 'paused' : `${runWords}${byHand ? ', by hand' : ''}`;
    const width = Math.max(0.3, share(toMs) - share(fromMs));
    return (
      <button
        key={`${jobId} ${fromMs}`}
        type="button"
        className={classes.worked}
        data-kind={kind}
        data-goes-on={goesOn || undefined}
        style={{ ...across(fromMs, toMs), top }}
        aria-label={`${kind === 'pause' ? 'Paused' : 'Worked'} from ${clockOf(fromMs)} to ${clockOf(toMs)}: ${words}`}
        title={`${clockOf(fromMs)} to ${clockOf(toMs)}. ${words}`}
        onClick={() => onOpen(stretch)}
      >
        {runsMs.map((ms) => (
          <i key={ms} style={{ left: `${((share(ms) - share(fromMs)) / width) * 100}%` }} />
        ))}
        <small>{words}</small>
      </button>
    );
  });
}

/** What is still to be expected of a booking that runs. */
function Expected({
  booking,
  top,
  across,
  nowMs,
}: {
  booking: ExpectedBooking;
  top: number;
  across: Across;
  nowMs: number;
}) {
  const { state, bay, expectedToMs, lateMin } = booking;
  if (bay === null || state !== 'running') return null;
  const over = lateMin >= lateFromMin ? `, ${minutesWords(lateMin * 60)} over` : '';
  return (
    <span className={classes.expected} style={{ ...across(nowMs, expectedToMs), top }}>
      <small>{`about ${clockOf(expectedToMs)}${over}`}</small>
    </span>
  );
}
