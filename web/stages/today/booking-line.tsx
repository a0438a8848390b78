import type { ExpectedBooking } from '../../../core/day/bay-rows.ts';
import { SeverityMark } from '../../ui/severity.tsx';
import { clockOf } from './use-day.ts';

/** A booking in a list for a narrow screen: when, who, what is said of it, and what stands against it. */
export function BookingLine({
  booking: { id, title, fromMs, toMs, state, conflict },
  words,
  onOpen,
}: {
  booking: ExpectedBooking;
  words: string;
  onOpen: (id: number) => void;
}) {
  return (
    <li data-state={state}>
      <button type="button" onClick={() => onOpen(id)}>
        <span className="number">
          {clockOf(fromMs)}–{clockOf(toMs)}
        </span>
        <b>{title}</b>
        <small>{words}</small>
        {conflict && (
          <small>
            <SeverityMark severity="mind" /> {conflict}
          </small>
        )}
      </button>
    </li>
  );
}
