import { z } from 'zod';
import { identifier, moment } from '../values/parts.ts';

const deviation = z.object({ standardDeviation: z.number(), df: z.number() });

/** A dyno's own repeatability, from its check runs; shares of power. */
export const checkHistory = z.object({
  series: z.array(
    z.object({
      car: z.string(),
      fromRpm: z.number(),
      toRpm: z.number(),
      meanKw: z.number(),
      runs: z.array(
        z.object({
          id: identifier,
          label: z.string(),
          startedAt: moment,
          /** 1, 2 …: runs more than 12 hours apart were strapped anew. */
          mounting: z.int().positive(),
          meanKw: z.number(),
          awayShare: z.number(),
        }),
      ),
    }),
  ),
  within: deviation.optional(),
  remount: deviation.optional(),
  /** Check runs that share no range with the others of their car, or of which no curve can be made. */
  apart: z.array(identifier),
  /** Repeats of setups in other jobs on this dyno: how many runs, and their spread as a share of power. */
  repeats: z.array(
    z.object({
      runs: z.int().positive(),
      share: z.number().nonnegative(),
      /** Whose they are, such as `B of 14 May 2026`, and of which car. */
      of: z.string().optional(),
      car: z.string().optional(),
      /** Of the job's own vehicle, in an earlier job. */
      sameVehicle: z.boolean().optional(),
      /** How they changed from one run of their session to the next, and how much their places tell of it. */
      slope: z.object({ perRun: z.number(), placeScatter: z.number().positive() }).optional(),
    }),
  ),
});
export type CheckHistoryRecord = z.infer<typeof checkHistory>;
