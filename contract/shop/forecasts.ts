import { z } from 'zod';
import type { Endpoint } from '../values/endpoint.ts';
import { askedFigure, figureQuantities, isRange, rangeRule, saysWhere, whereRule } from '../values/asked-figure.ts';
import { identifier, moment, trimmedText } from '../values/parts.ts';

export const forecastFields = z
  .object({
    setupId: identifier,
    who: trimmedText(60).min(1, 'say who'),
    ...askedFigure,
    /** kW, N·m or kPa; the same twice for a single value. */
    low: z.number().min(0).max(10_000),
    high: z.number().min(0).max(10_000),
  })
  .refine(({ low, high }) => high >= low, { message: 'must not lie below the lower end', path: ['high'] })
  .refine(isRange, rangeRule)
  .refine(saysWhere, whereRule);
export const forecast = forecastFields.safeExtend({ id: identifier, revision: z.int().positive() });
export type ForecastRecord = z.infer<typeof forecast>;

/** A forecast with what came of it. */
export const scoredForecast = z.object({
  id: identifier,
  jobId: identifier,
  who: z.string(),
  quantity: z.enum(figureQuantities),
  low: z.number(),
  high: z.number(),
  actual: z.number(),
  createdAt: moment,
});

export const forecastEndpoints: readonly Endpoint[] = [
  {
    method: 'get',
    path: '/forecasts',
    does: 'Forecasts of all jobs with what came of them, as far as their setups have run.',
    answer: z.array(scoredForecast),
  },
];
