import { z } from 'zod';
import { askedFigure, isRange, rangeRule, saysWhere, whereRule } from '../values/asked-figure.ts';
import { identifier } from '../values/parts.ts';

/** What the owner wants a setup to make at least: kW, N·m or kPa. */
export const targetFields = z
  .object({
    ...askedFigure,
    value: z.number().positive().max(10_000),
    /** Whose figure it is; null for boost, which has no scale. */
    scale: z.enum(['wheels', 'crank']).nullable(),
  })
  .refine(saysWhere, whereRule)
  .refine(isRange, rangeRule)
  .refine(({ quantity, scale }) => quantity.includes('boost') || scale !== null, {
    message: 'say whether it is a figure of the crank or of the wheels',
    path: ['scale'],
  });
export const target = targetFields.safeExtend({ id: identifier, revision: z.int().positive() });
