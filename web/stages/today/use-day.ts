import { keepPreviousData, useQuery } from '@tanstack/react-query';
import dayjs, { type Dayjs } from 'dayjs';
import { useEffect, useMemo, useState } from 'react';
import type { Booking, BookingChange, Day } from '../../../contract/day.ts';
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

export const dayKey = ({ from, to }: DaySpan) => ['day', from.toISOString(), to.toISOString()] as const;

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
  return useMemo(() => day && dayPicture(day, bays, nowMs), [day, bays, nowMs]);
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

/** Several moves of one booking go out one after the other; the last one is what stands. */
let sending = Promise.resolve();

/** Changes a booking at once on the screen and then at the server; where that refuses, it goes back with the reason. */
export function changeBooking(span: DaySpan, { id }: Pick<Booking, 'id'>, change: BookingChange): void {
  const key = dayKey(span);
  queryClient.setQueryData<Day>(key, (day) => day && { ...day, bookings: day.bookings.map((one) => (one.id === id ? Object.assign({}, one, change) : one)) }); // prettier-ignore
  sending = sending
    .then(() => api.changeBooking(id, change))
    .catch(tellProblem)
    .then(() => queryClient.invalidateQueries({ queryKey: ['day'] }));
}
