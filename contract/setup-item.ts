import { z } from 'zod';

/** One thing that a step from setup to setup changed; the kinds and their units are those of core/setup/item.ts. */
export const numericItem = z
  .object({
    kind: z.enum([
      'ignition',
      'boost',
      'lambda-target',
      'intake-cam',
      'exhaust-cam',
      'injection-end',
      'intake-length',
      'tyre-pressure',
      'plug-gap',
    ]),
    /** By so much, or to a value; one of the two. */
    by: z.number().optional(),
    to: z.number().optional(),
    aboveRpm: z.number().positive().optional(),
  })
  .refine((item) => (item.by === undefined) !== (item.to === undefined), { message: 'say "by" or "to", one of them' });

export const namedItem = z.object({
  kind: z.enum([
    'tune-file',
    'fuel',
    'part-fitted',
    'part-removed',
    'tyres',
    'gear',
    'filter',
    'fan',
    'charge-cooling',
    'bonnet',
    'air-conditioning',
    'words',
  ]),
  name: z.string().min(1).max(200),
});

export const setupItem = z.union([numericItem, namedItem]);
export type SetupItemRecord = z.infer<typeof setupItem>;
