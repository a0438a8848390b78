import { z } from 'zod';
import { rpm } from './parts.ts';

/** What a figure can be asked for that one setup makes. */
export const figureQuantities = [
  'peak power',
  'peak torque',
  'peak boost',
  'mean power',
  'mean torque',
  'power at',
  'torque at',
  'boost at',
] as const;

/** Of which curve, and where on it; the fields that forecasts and targets share. */
export const askedFigure = {
  quantity: z.enum(figureQuantities),
  /** The range of a mean, or the speed of a figure at one. */
  fromRpm: rpm.nullable(),
  toRpm: rpm.nullable(),
};

type Asked = z.output<z.ZodObject<typeof askedFigure>>;
export const saysWhere = ({ quantity, fromRpm }: Asked): boolean => !quantity.endsWith(' at') || fromRpm !== null;
export const whereRule = { message: 'say at which speed', path: ['fromRpm'] };
export const isRange = ({ fromRpm, toRpm }: Asked): boolean => fromRpm === null || toRpm === null || toRpm > fromRpm;
export const rangeRule = { message: 'must lie above the lower end', path: ['toRpm'] };
