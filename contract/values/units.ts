import { z } from 'zod';
import { unitChoices } from '../../core/units/told-units.ts';

/** The units that a person is told quantities in. */
export const units = z.strictObject({
  power: z.enum(unitChoices.power),
  torque: z.enum(unitChoices.torque),
  pressure: z.enum(unitChoices.pressure),
  airPressure: z.enum(unitChoices.airPressure),
  temperature: z.enum(unitChoices.temperature),
  speed: z.enum(unitChoices.speed),
  volume: z.enum(unitChoices.volume),
  mixture: z.enum(unitChoices.mixture),
});
