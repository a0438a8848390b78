import { z } from 'zod';

/** One thing that a step from setup to setup changed; the kinds and their units are those of core/setup/item.ts. */
const step = {
  /** By so much, or to a value; one of the two. */
  by: z.number().optional(),
  to: z.number().optional(),
  aboveRpm: z.number().positive().optional(),
};
const oneOf = (item: { by?: number | undefined; to?: number | undefined }) => (item.by === undefined) !== (item.to === undefined); // prettier-ignore
const sayOne = { message: 'say "by" or "to", one of them' };

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
    ...step,
  })
  .refine(oneOf, sayOne);

/** A numeric thing that a person named: pump timing, spacers, a jet. */
export const ownItem = z
  .object({ kind: z.literal('own'), name: z.string().trim().min(1).max(80), unit: z.string().trim().max(16), ...step })
  .refine(oneOf, sayOne);

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

export const setupItem = z.union([numericItem, ownItem, namedItem]);
export type SetupItemRecord = z.infer<typeof setupItem>;
