const thousands = new Intl.NumberFormat('en', { maximumFractionDigits: 0 });

/** An engine speed as it is spoken of: to 10 rpm, thousands set off. */
export function spokenRpm(rpm: number): string {
  return thousands.format(Math.round(rpm / 10) * 10).replace('-', '−');
}

/** Words as the beginning of a sentence; λ is a symbol and stays as it is. */
export const capital = (words: string) =>
  words.startsWith('λ') ? words : words.charAt(0).toUpperCase() + words.slice(1);

const and = new Intl.ListFormat('en-GB');

/** Several things in a sentence: `a`, `a and b`, `a, b and c`. */
export const listed = (words: readonly string[]): string => and.format(words);

/** A share as percent with sensible digits: 0.31 %, 1 %. */
export function formatShare(share: number): string {
  const percent = 100 * share;
  return `${percent < 0.995 ? percent.toFixed(2) : percent.toFixed(percent < 9.95 ? 1 : 0).replace(/\.0$/, '')} %`;
}

/** Half of an interval as it is written: one that rounds to nothing is less than the last digit, never nothing. */
export function halfWidthText(written: string): string {
  return /^0(\.0+)?$/.test(written) ? `<${written.replace(/0$/, '1')}` : written;
}
