import type { z } from 'zod';
import { scoredForecast } from '../contract/shop/forecasts.ts';
import type { Queryable } from './database.ts';
import { recordOf } from './rows.ts';

/** So many of the latest tell who forecasts well. */
const most = 1000;

/** Forecasts with what came of them, the latest first: as far as their jobs have figures. */
export async function scoredForecasts(database: Queryable): Promise<z.output<typeof scoredForecast>[]> {
  const { rows } = await database.query(
    `select forecast.id, forecast.job_id, who, quantity, low, high, created_at, (headline -> 'outcomes' ->> forecast.id::text)::float8 as actual
     from forecast join job_headline on job_headline.job_id = forecast.job_id
     where removed_at is null and headline -> 'outcomes' ->> forecast.id::text is not null
     order by forecast.id desc limit ${most}`,
  );
  return rows.map((row) => recordOf(scoredForecast, row));
}
