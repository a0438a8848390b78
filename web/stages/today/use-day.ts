import { fetchWhatChanged } from '../../state/what-changed.ts';
import { keys } from '../../state/query-keys.ts';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import dayjs, { type Dayjs } from 'dayjs';
import { useEffect, useMemo, useState } from 'react';
import { create } from 'zustand';
import type { Booking, BookingChange, Day } from '../../../contract/shop/day.ts';
import { dayPicture, type DayPicture } from '../../../core/day/day-picture.ts';
import type { DayBay } from '../../../core/day/day-facts.ts';
import { api } from '../../state/api.ts';
import { useLive } from '../../state/live.ts';
import { queryClient, tellProblem } from '../../state/queries.ts';

/** A stretch of whole days, by the clock of whoever looks. */
export interface DaySpan {
  from: Dayjs;
  to: Dayjs;
}

export const dayKey = ({ from, to }: DaySpan) => keys.day(from.toISOString(), to.toISOString());

/** What is booked and was done in some days. */
export function useDay(span: DaySpan) {
  return useQuery({
    queryKey: dayKey(span),
    queryFn: () => api.day(span.from.toISOString(), span.to.toISOString()),
    placeholderData: keepPreviousData,
  });
}

/** The bays, with the jobs on their dynos. */
export function useDayBays(): DayBay[] {
  const bays = useLive((live) => live.bays);
  return useMemo(() => bays.map(({ bay, name, mounted }) => ({ bay, name, jobId: mounted?.jobId ?? null })), [bays]);
}

/** The day in one look, told anew every quarter of a minute. */
export function usePicture(day: Day | undefined, bays: readonly DayBay[], nowMs: number): DayPicture | undefined {
  const moves = useMoves((state) => state.moves);
  return useMemo(() => {
    if (!day) return undefined;
    const bookings = moves.size === 0 ? day.bookings : day.bookings.map((booking) => withMoves(booking, moves));
    return dayPicture({ ...day, bookings }, bays, nowMs);
  }, [day, bays, nowMs, moves]);
}

const tickMs = 15_000;

/** The time, ms, in steps that a plan is read in. */
export function useClock(): number {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), tickMs);
    return () => clearInterval(timer);
  }, []);
  return now;
}

export const clockOf = (ms: number): string => dayjs(ms).format('HH:mm');

/**
 * Moves that the server has not stored yet, by booking. They are laid over what it says, so that an answer that was on
 * its way does not undo them.
 */
const useMoves = create<{ moves: ReadonlyMap<number, BookingChange> }>(() => ({ moves: new Map() }));

const withMoves = (booking: Booking, moves: ReadonlyMap<number, BookingChange>): Booking =>
  Object.assign({}, booking, moves.get(booking.id));

/** Bookings whose move is on its way. */
const sending = new Set<number>();

/** Sends a changed booking. Further changes that come meanwhile are sent together once it has been stored. */
async function send(id: number): Promise<void> {
  const move = useMoves.getState().moves.get(id);
  if (!move || sending.has(id)) return;
  sending.add(id);
  await api.changeBooking(id, move).catch(tellProblem);
  await fetchWhatChanged();
  sending.delete(id);
  const { moves } = useMoves.getState();
  if (moves.get(id) !== move) return send(id);
  useMoves.setState({ moves: new Map([...moves].filter(([other]) => other !== id)) });
}

/**
 * Changes a booking at once on the screen and then at the server; where that refuses, it goes back with the reason.
 * @param change what becomes of it as it stands now; undefined to leave it
 */
export function changeBooking(span: DaySpan, id: number, change: (now: Booking) => BookingChange | undefined): void {
  const stored = queryClient.getQueryData<Day>(dayKey(span))?.bookings.find((booking) => booking.id === id);
  const { moves } = useMoves.getState();
  const wanted = stored && change(withMoves(stored, moves));
  if (!wanted) return;
  useMoves.setState({ moves: new Map(moves).set(id, { ...moves.get(id), ...wanted }) });
  void send(id);
}
