import { z } from 'zod';

/** One thing that a step from setup to setup changed; the kinds and their units are those of core/setup/item.ts. */
const step = {
  /** By so much, or to a value; one of the two. */
  by: z.number().optional(),
  to: z.number().optional(),
  aboveRpm: z.number().positive().optional(),
};
const oneOf = (item: { by?: number | undefined; to?: number | undefined }) =>
  (item.by === undefined) !== (item.to === undefined);
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

const fuellingAxis = z.object({
  channel: z.enum(['engineSpeed', 'manifoldPressure', 'airMassPerCycle', 'throttle', 'boost', 'airFlowSensor']),
  breakpoints: z
    .array(z.number())
    .min(2)
    .max(32)
    .refine((values) => values.every((value, at) => at === 0 || value > values[at - 1]!), {
      message: 'breakpoints must rise',
    })
    .readonly(),
});
/** The axes of a fuel table: one across, and one down where it has two. */
export const fuellingAxes = z.object({ across: fuellingAxis, down: fuellingAxis.nullable() });

/** What the fuel of each cell was multiplied by, in rows. */
export const fuelMultipliers = fuellingAxes
  .extend({ multipliers: z.array(z.number().min(0.5).max(2)).readonly() })
  .refine(
    ({ across, down, multipliers }) =>
      multipliers.length === across.breakpoints.length * (down?.breakpoints.length ?? 1),
    {
      message: 'a multiplier for every cell',
    },
  );

export const fuelTableItem = z.object({
  kind: z.literal('fuel-table'),
  name: z.string().min(1).max(200),
  /** Absent where a person only said that it was changed. */
  table: fuelMultipliers.optional(),
});

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

export const setupItem = z.union([numericItem, ownItem, fuelTableItem, namedItem]);
export type SetupItemRecord = z.infer<typeof setupItem>;
