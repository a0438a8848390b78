import { z } from 'zod';
import { askedFigure, isRange, rangeRule, saysWhere, whereRule } from '../values/asked-figure.ts';
import { identifier } from '../values/parts.ts';

const standards = ['none', 'sae-j1349', 'std-j607', 'din-70020', 'iso-1585-si', 'iso-1585-ci'] as const;

/** What the owner wants a setup to make at least: kW, N·m or kPa. */
const wanted = z.object({
  ...askedFigure,
  value: z.number().positive().max(10_000),
  /** Whose figure it is; null for boost, which has no scale. */
  scale: z.enum(['wheels', 'crank']).nullable(),
  /** The standard that it is wanted under; null for boost, and of targets from before they named one. */
  standard: z.enum(standards).nullable().default(null),
});
const isBoost = ({ quantity }: { quantity: string }) => quantity.includes('boost');

export const targetFields = wanted
  .refine(saysWhere, whereRule)
  .refine(isRange, rangeRule)
  .refine((target) => isBoost(target) || target.scale !== null, {
    message: 'say whether it is a figure of the crank or of the wheels',
    path: ['scale'],
  })
  .refine((target) => isBoost(target) || target.standard !== null, {
    message: 'say under which standard it is wanted',
    path: ['standard'],
  });
export const target = wanted.extend({ id: identifier, revision: z.int().positive() });
