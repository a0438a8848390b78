import { z } from 'zod';

/** A run's curve as JSON: what `suvok reduce` prints and what the server answers. */
const peak = { rpm: z.number(), atEdge: z.boolean() };

export const curveJson = z.object({
  engineSpeedRpm: z.array(z.number()),
  powerKw: z.array(z.number()),
  uncorrectedPowerKw: z.array(z.number()),
  torqueNm: z.array(z.number()),
  /** Where several drums or hubs are recorded: each by itself, by its place, corrected; powerKw is their sum. */
  drumsKw: z.record(z.string(), z.array(z.number())).optional(),
  correction: z.object({ standard: z.string(), factor: z.number(), valid: z.boolean() }),
  smoothing: z.object({ spanRpm: z.union([z.number(), z.tuple([z.number(), z.number()])]), auto: z.boolean() }),
  sweep: z.object({ startS: z.number(), endS: z.number(), startRpm: z.number(), endRpm: z.number() }),
  engineSpeedFrom: z.enum(['pickup', 'ratio']),
  peakPower: z.object({ kw: z.number(), ...peak }),
  peakTorque: z.object({ nm: z.number(), ...peak }),
  /** Positive where the smoothed line lies below what the samples around the peak say. */
  smoothingTookOffPeakKw: z.number(),
  checks: z.array(
    z.object({
      id: z.string(),
      severity: z.enum(['note', 'mind', 'stop']),
      fromRpm: z.number().nullable(),
      toRpm: z.number().nullable(),
      figure: z.number().nullable(),
      unit: z.string().nullable(),
      message: z.string(),
    }),
  ),
  /** What the command line took for what nobody said, in sentences. */
  assumed: z.array(z.string()).optional(),
});
export type CurveJson = z.infer<typeof curveJson>;
