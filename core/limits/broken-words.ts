import { spokenRpm } from '../units/spoken-rpm.ts';
import type { BrokenLimit } from './broken-limits.ts';

/** A broken limit as the end of a sentence: `exhaust temperature reached 950 °C at 5,900 rpm (limit 900 °C)`. */
export function brokenWords({ quantity, label, unit, side, limit, reading, atRpm, usual }: BrokenLimit): string {
  const told = (value: number) => `${plain(value)}${unit && ` ${unit}`}`;
  // An engine speed is its own place.
  const where = atRpm === undefined || quantity === 'engineSpeed' ? '' : ` at ${spokenRpm(atRpm)} rpm`;
  const bound = usual ? `usual limit ${told(limit)}, not set in this job` : `limit ${told(limit)}`;
  if (quantity === 'knockRetard') return `it knocked, ${told(reading)} taken back${where} (${bound})`;
  const name = label.startsWith('λ') ? label : label.charAt(0).toLowerCase() + label.slice(1);
  return `${name} ${side === 'most' ? 'reached' : 'fell to'} ${told(reading)}${where} (${bound})`;
}

/** With as many digits as such a reading has: 950, 3.5, 0.92. */
export function plain(value: number): string {
  const digits = Math.abs(value) < 2 ? 2 : Math.abs(value) < 20 ? 1 : 0;
  return value.toLocaleString('en-GB', { minimumFractionDigits: digits, maximumFractionDigits: digits });
}
