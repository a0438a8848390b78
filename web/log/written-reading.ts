import { trueMinus } from '../ui/figures.ts';

/** Digits after the point that a reading of a unit is worth; others by their size. */
const digits: Readonly<Record<string, number>> = {
  '–': 2,
  '°C': 0,
  kPa: 0,
  rpm: 0,
  '°': 1,
  '°BTDC': 1,
  V: 1,
  ms: 2,
  MPa: 1,
};

/** A logged reading with the digits that its unit is worth. */
export function writtenReading(value: number, unit: string): string {
  if (!Number.isFinite(value)) return '–';
  const size = Math.abs(value);
  // A crankcase's pressure is small: tenths matter there, and nowhere else of a pressure.
  const places = size < 10 && unit === 'kPa' ? 1 : (digits[unit] ?? (size < 10 ? 1 : 0));
  return trueMinus(unit === 'rpm' ? Math.round(value).toLocaleString('en-GB') : value.toFixed(places));
}
