const thousands = new Intl.NumberFormat('en', { maximumFractionDigits: 0 });

/** An engine speed as it is spoken of: to 10 rpm, thousands set off. */
export function spokenRpm(rpm: number): string {
  return thousands.format(Math.round(rpm / 10) * 10).replace('-', '−');
}
