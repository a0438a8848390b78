import { z } from 'zod';
import { bookingChange, newBooking } from '../../contract/shop/day.ts';
import { moment } from '../../contract/values/parts.ts';
import { addBookings, bookingById, removeBooking } from '../../store/day/bookings.ts';
import { dayBetween } from '../../store/day/day.ts';
import type { Database } from '../../store/database/database.ts';
import { changeRow } from '../../store/database/rows.ts';
import { HttpRefusal } from '../http-refusal.ts';
import { act, bodyAs, found, idOf } from './answer.ts';
import type { ContractRoutes } from './contract-routes.ts';

/** A week, and a clock that is put back in it. */
const longestMs = (7 * 24 + 1) * 3_600_000;
const asked = z.object({ from: moment, to: moment });

/** What is booked, what was done, who waits. */
export function dayRoutes(routes: ContractRoutes, database: Database): void {
  routes.get('/day', async (request, response) => {
    const span = asked.safeParse(request.query);
    const lengthMs = span.success ? Date.parse(span.data.to) - Date.parse(span.data.from) : 0;
    if (!span.success || !(lengthMs > 0 && lengthMs <= longestMs))
      throw new HttpRefusal(400, 'Ask for a day by two moments, `from` and `to`, a week apart at most.');
    response.json(await dayBetween(database, span.data.from, span.data.to));
  });

  routes.post('/bookings', async (request, response) => {
    const fields = bodyAs(request, newBooking);
    // The server stands in the shop, and goes by its clock.
    const { timeZone } = Intl.DateTimeFormat().resolvedOptions();
    const ids = await act(database, response, (client) => addBookings(client, fields, timeZone));
    const added = await Promise.all(ids.map((id) => bookingById(database, id)));
    response.status(201).json(added.map((booking) => found(booking, 'booking')));
  });

  routes.patch('/bookings/:id', async (request, response) => {
    const id = idOf(request);
    const { revision, ...fields } = bodyAs(request, bookingChange);
    const {
      series: _series,
      id: _id,
      revision: _revision,
      ...before
    } = found(await bookingById(database, id), 'booking');
    // Rules that bind two fields hold for the booking as it will be.
    bodyAs({ body: { ...before, ...fields } }, newBooking);
    found(await act(database, response, (client) => changeRow(client, 'booking', id, fields, revision)), 'booking');
    response.json(found(await bookingById(database, id), 'booking'));
  });

  routes.delete('/bookings/:id', async (request, response) => {
    const booking = found(await bookingById(database, idOf(request)), 'booking');
    const rest = request.query.series === 'rest';
    await act(database, response, (client) => removeBooking(client, booking, rest));
    response.status(204).end();
  });
}
