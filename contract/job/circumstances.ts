import { z } from 'zod';
import { airFile, dynoFile } from '../files/machine-and-air.ts';
import { moment, trimmedText } from '../values/parts.ts';

/** What a run was made under, as a person may state it afterwards. */

export const statedAir = z.strictObject({
  temperatureC: airFile.shape.temperatureC,
  pressure: z.discriminatedUnion('at', [
    z.strictObject({ at: z.literal('station'), hPa: airFile.shape.pressureHpa }),
    z.strictObject({
      at: z.literal('sea level'),
      hPa: z.number().min(850).max(1100),
      elevationM: z.number().min(-500).max(6000),
    }),
  ]),
  moisture: z.discriminatedUnion('by', [
    z.strictObject({ by: z.literal('humidity'), pct: airFile.shape.relativeHumidityPct }),
    z.strictObject({ by: z.literal('dew point'), celsius: z.number().min(-80).max(60) }),
    z.strictObject({ by: z.literal('wet bulb'), celsius: z.number().min(-60).max(60), ventilated: z.boolean() }),
  ]),
});
export type StatedAir = z.infer<typeof statedAir>;

/** How the absorber was driven; an inertia roller has none. */
export const loadModes = ['inertia', 'ramp', 'constant torque', 'holds'] as const;

const words = trimmedText(120)
  .nullable()
  .transform((text) => text || null);

/** Every field may be left out; what is named is taken to be so from now on. */
export const circumstances = z.object({
  startedAt: moment,
  dyno: dynoFile,
  engineToDrumRatio: z.number().positive().max(100).nullable(),
  gear: trimmedText(20).nullable(),
  /** Null: no air is known, and nothing is corrected. */
  air: statedAir.nullable(),
  airTakenAt: moment.nullable(),
  /** °C by channel. */
  startTemperatures: z.record(z.string().min(1).max(64), z.number().min(-60).max(1200)),
  /** What was in the tank. */
  fuel: z.strictObject({ name: trimmedText(80), ethanolPct: z.number().min(0).max(100).nullable() }).nullable(),
  tyres: words,
  tyrePressureKpa: z.number().min(20).max(1000).nullable(),
  fan: words,
  bonnet: words,
  loadMode: z.enum(loadModes).nullable(),
  /** Strapped anew before it; null leaves it to the hours between the runs. */
  remounted: z.boolean().nullable(),
});
/** Of those, what instruments give, and what is kept as they gave it. */
export const givenFields = [
  'startedAt',
  'dyno',
  'engineToDrumRatio',
  'gear',
  'air',
  'airTakenAt',
  'startTemperatures',
  'fuel',
] as const;
