import { z } from 'zod';
import { trimmedText } from '../values/parts.ts';
import { probePlace } from './recording.ts';

/** How the files of one logger are read; the forms of core/exchange/loggers/log-mapping.ts. */
export const logMapping = z.object({
  columns: z
    .array(
      z.object({
        heading: z.string().max(200),
        channel: z.string().min(1).max(64).nullable(),
        unit: z.string().max(16),
      }),
    )
    .min(2)
    .max(400),
  ratioAtLambda1: z.number().min(4).max(25).nullable(),
});

/** A logger whose files are known by their headings. */
export const logSource = z.object({
  headings: z.string().min(1).max(40_000),
  name: trimmedText(80),
  mapping: logMapping,
  probe: probePlace,
});
export type LogSource = z.output<typeof logSource>;

/** What is said of a file that joins a run, beside its samples. */
export const joinedLog = z.object({ name: trimmedText(120).min(1), probe: probePlace });
export type JoinedLog = z.input<typeof joinedLog>;
