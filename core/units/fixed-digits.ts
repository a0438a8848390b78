/** A formatter for each number of digits: one made anew for every figure takes longer than all else. */
const kept = new Map<number, Intl.NumberFormat>();

/** With a true minus; nothing has no sign. */
export function trueMinus(text: string): string {
  return text.replace('-', '−').replace(/^−(0(?:\.0+)?)$/, '$1');
}

/** A figure with so many digits after the point, thousands set off, a true minus. */
export function fixedDigits(value: number, digits: number): string {
  const format =
    kept.get(digits) ??
    new Intl.NumberFormat('en-GB', { minimumFractionDigits: digits, maximumFractionDigits: digits });
  kept.set(digits, format);
  return trueMinus(format.format(value));
}
