import { useDraggable } from '@dnd-kit/core';
import type { KeyboardEvent } from 'react';
import { lateFromMin, type ExpectedBooking } from '../../../core/day/bay-rows.ts';
import { SeverityMark } from '../../ui/severity.tsx';
import classes from './day-grid.module.css';
import { clockOf } from './use-day.ts';

interface BookingBlockProps {
  booking: ExpectedBooking;
  bayName: string;
  style: { left: string; width: string; top: number };
  onOpen: () => void;
  onKey: (event: KeyboardEvent) => void;
}

/** A booking on the plan: dragged to move it, by its end to stretch it; arrow keys do the same. */
export function BookingBlock({ booking, bayName, style, onOpen, onKey }: BookingBlockProps) {
  const { id, title, work, fromMs, toMs, conflict, state, lateMin } = booking;
  const { setNodeRef: moveRef, listeners: moves, transform: way, isDragging } = useDraggable({ id: `move ${id}` });
  const { setNodeRef: endRef, listeners: stretches, transform: longer } = useDraggable({ id: `stretch ${id}` });
  const told = [
    `${title}${work && `, ${work}`}`,
    bayName,
    `${clockOf(fromMs)} to ${clockOf(toMs)}`,
    state === 'running' ? 'running' : state,
    lateMin > 0 && `${lateMin} min late`,
    conflict,
  ].filter(Boolean);
  return (
    <div
      className={classes.booking}
      data-state={state}
      data-conflict={conflict !== null || undefined}
      data-dragging={isDragging || undefined}
      style={{
        ...style,
        transform: way ? `translate(${way.x}px, ${way.y}px)` : undefined,
        paddingRight: longer ? Math.max(0, longer.x) : undefined,
      }}
    >
      <button
        ref={moveRef}
        type="button"
        className={classes.what}
        {...moves}
        aria-label={told.join(', ')}
        aria-keyshortcuts="ArrowLeft ArrowRight ArrowUp ArrowDown Shift+ArrowLeft Shift+ArrowRight Delete Enter"
        data-booking={id}
        onClick={onOpen}
        onKeyDown={onKey}
        title={conflict ?? told.join(', ')}
      >
        <b>
          {conflict && <SeverityMark severity="mind" />}
          {title}
        </b>
        <small>
          {moved(booking) && <span className={classes.moved}>{moved(booking)}</span>}
          {moved(booking) && work ? ' · ' : ''}
          {work}
        </small>
      </button>
      <span ref={endRef} className={classes.end} {...stretches} aria-hidden data-stretch={id} />
    </div>
  );
}

/** When it will begin, where that is not when it is booked. */
function moved({ state, bay, lateMin, expectedFromMs }: ExpectedBooking): string {
  if (bay === null || lateMin < lateFromMin) return '';
  if (state === 'not begun') return 'not begun';
  return state === 'to come' ? `from ${clockOf(expectedFromMs)}` : '';
}
