import type { z } from 'zod';
import { price, type Price } from '../../contract/shop/charges.ts';
import { scoredForecast } from '../../contract/shop/forecasts.ts';
import { shiftNote, type ShiftNote } from '../../contract/shop/shifts.ts';
import type { Queryable } from '../database/database.ts';
import { recordOf } from '../database/rows.ts';

/** The price list, in its order of entry. */
export async function priceList(database: Queryable): Promise<Price[]> {
  const { rows } = await database.query(
    'select id, revision, name, per, amount::float8, currency from price where removed_at is null order by id',
  );
  return rows.map((row) => recordOf(price, row));
}

/** So many of the last ones are looked at. */
const mostShiftNotes = 20;

/** What shifts handed over, the last first. */
export async function shiftNotes(database: Queryable): Promise<ShiftNote[]> {
  const { rows } = await database.query(
    `select id, revision, text, handed_by, at, taken_by, taken_at from shift_note
     where removed_at is null order by at desc, id desc limit ${mostShiftNotes}`,
  );
  return rows.map((row) => recordOf(shiftNote, row));
}

/** So many of the latest tell who forecasts well. */
const mostForecasts = 1000;

/** Forecasts with what came of them, the latest first: as far as their jobs have figures. */
export async function scoredForecasts(database: Queryable): Promise<z.output<typeof scoredForecast>[]> {
  const { rows } = await database.query(
    `select forecast.id, forecast.job_id, who, quantity, low, high, created_at, (headline -> 'outcomes' ->> forecast.id::text)::float8 as actual
     from forecast join job_headline on job_headline.job_id = forecast.job_id
     where removed_at is null and headline -> 'outcomes' ->> forecast.id::text is not null
     order by forecast.id desc limit ${mostForecasts}`,
  );
  return rows.map((row) => recordOf(scoredForecast, row));
}
