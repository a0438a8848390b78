import { quantity as quantityOf, say, type Sentence } from '../sentence/sentence.ts';
import { spokenRpm } from '../units/spoken.ts';
import type { BrokenLimit } from './broken-limits.ts';

/** A broken limit as the end of a sentence: `exhaust temperature reached 950 °C at 5,900 rpm (limit 900 °C)`. */
export function brokenWords({
  quantity,
  label,
  unit,
  side,
  limit,
  reading,
  stoichiometric,
  atRpm,
  usual,
}: BrokenLimit): Sentence {
  const told = (value: number) => quantityOf(value, unit, stoichiometric);
  // An engine speed is its own place.
  const where = atRpm === undefined || quantity === 'engineSpeed' ? '' : ` at ${spokenRpm(atRpm)} rpm`;
  const bound = usual ? say`usual limit ${told(limit)}, not set in this job` : say`limit ${told(limit)}`;
  if (quantity === 'knockRetard') return say`it knocked, ${told(reading)} taken back${where} (${bound})`;
  const name = label.startsWith('λ') ? label : label.charAt(0).toLowerCase() + label.slice(1);
  return say`${name} ${side === 'most' ? 'reached' : 'fell to'} ${told(reading)}${where} (${bound})`;
}
