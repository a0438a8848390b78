import { z } from 'zod';
import { drumPlaces, torqueChannels } from './drums.ts';

/** `dyno.json`: what a recording's figures need to know about the machine that made it. */
export const dynoFile = z
  .object({
    /** `road`: a run that was made on no machine; nothing else is said of it then. */
    kind: z.enum(['inertia-roller', 'loaded-roller', 'hub', 'road']),
    inertiaKgM2: z.number().nonnegative(),
    /** Where both hubs are recorded: the inertia above is the left one's, or each one's. */
    rightInertiaKgM2: z.number().positive().optional(),
    /** Where several drums are recorded: those of single ones that differ from the others'. */
    drumInertiaKgM2: z.partialRecord(z.enum(drumPlaces), z.number().positive().optional()).optional(),
    /** Engine ÷ drum speed of each axle at light load, as calibrated for the car that was on it. */
    axleRatios: z.object({ front: z.number().positive(), rear: z.number().positive() }).optional(),
    radiusM: z.number().positive().optional(),
    coastAbsorberNm: z.number().optional(),
    parasitic: z
      .object({ aNm: z.number(), bNmPerRadS: z.number(), cNmPerRadS2: z.number() })
      .default({ aNm: 0, bNmPerRadS: 0, cNmPerRadS2: 0 }),
    /** Height of the shop above the sea, m: tells a sea-level pressure that was typed in. */
    altitudeM: z.number().min(-500).max(6000).optional(),
    loadCellLagS: z.number().nonnegative().optional(),
    /** What each load cell reads with nothing on it, N·m; taken off the recording. */
    absorberZeroNm: z.partialRecord(z.enum(torqueChannels), z.number().optional()).optional(),
  })
  .refine(({ kind, inertiaKgM2 }) => kind === 'road' || inertiaKgM2 > 0, {
    message: 'must be above 0',
    path: ['inertiaKgM2'],
  });
export type DynoFile = z.infer<typeof dynoFile>;

/** `air.json`: the air at the engine's inlet mouth; station pressure, not sea level. */
export const airFile = z.object({
  temperatureC: z.number().min(-60).max(80),
  pressureHpa: z.number().min(300).max(1200),
  relativeHumidityPct: z.number().min(0).max(100),
});
export type AirFile = z.infer<typeof airFile>;

/** Puts what is wrong with a file's content into one sentence. */
export function problemIn(error: z.ZodError): string {
  const issue = error.issues[0];
  if (!issue) return 'it does not have the expected form';
  const place = issue.path.length > 0 ? `"${issue.path.join('.')}": ` : '';
  return place + issue.message.charAt(0).toLowerCase() + issue.message.slice(1);
}
