/** Half of an interval as it is written: one that rounds to nothing is less than the last digit, never nothing. */
export function halfWidthText(written: string): string {
  return /^0(\.0+)?$/.test(written) ? `<${written.replace(/0$/, '1')}` : written;
}
