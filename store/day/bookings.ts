import { randomUUID } from 'node:crypto';
import type { z } from 'zod';
import { booking, type Booking, type newBooking } from '../../contract/shop/day.ts';
import type { Queryable } from '../database/database.ts';
import { insertRow, recordOf } from '../database/rows.ts';

const columns = 'id, revision, bay, job_id, title, work, starts_at, ends_at, series';

/** Bookings that touch a stretch of time, the first first. */
export async function bookingsBetween(database: Queryable, from: string, to: string): Promise<Booking[]> {
  const { rows } = await database.query(
    `select ${columns} from booking where removed_at is null and starts_at < $2 and ends_at > $1 order by starts_at, id`,
    [from, to],
  );
  return rows.map((row) => recordOf(booking, row));
}

export async function bookingById(database: Queryable, id: number): Promise<Booking | undefined> {
  const { rows } = await database.query(`select ${columns} from booking where id = $1 and removed_at is null`, [id]);
  return rows[0] && recordOf(booking, rows[0]);
}

/** Books once, or again after each day or week; a clock that is put forward or back in between does not move them. @returns ids */
export async function addBookings(
  database: Queryable,
  { repeat, startsAt, endsAt, ...fields }: z.output<typeof newBooking>,
  zone: string,
): Promise<number[]> {
  if (!repeat) return [await insertRow(database, 'booking', { ...fields, startsAt, endsAt })];
  const series = randomUUID();
  const ids: number[] = [];
  for (let time = 0; time < repeat.times; time++) {
    // By the shop's calendar and not by hours: eight in the morning stays eight in the morning.
    const later = `${time} ${repeat.every}`;
    const { rows } = await database.query<{ startsAt: Date; endsAt: Date }>(
      `select (($1::timestamptz at time zone $4) + $3::interval) at time zone $4 as "startsAt",
         (($2::timestamptz at time zone $4) + $3::interval) at time zone $4 as "endsAt"`,
      [startsAt, endsAt, later, zone],
    );
    const at = rows[0]!;
    ids.push(
      await insertRow(database, 'booking', {
        ...fields,
        startsAt: at.startsAt.toISOString(),
        endsAt: at.endsAt.toISOString(),
        series,
      }),
    );
  }
  return ids;
}

/** Takes a booking away, and those after it that repeat it where `rest` says so; undone by its act. */
export async function removeBooking(
  database: Queryable,
  { id, series, startsAt }: Booking,
  rest: boolean,
): Promise<void> {
  await database.query(
    `update booking set removed_at = now() where removed_at is null and (id = $1 or ($2 and series = $3 and starts_at > $4))`,
    [id, rest && series !== null, series, startsAt],
  );
}
