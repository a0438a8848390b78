/** A level as it is said: `+12 kPa`, `0.88`. */
export function levelWords(x: number, unit: string): string {
  const value = Number(x.toFixed(Math.abs(x) < 2 ? 2 : 1));
  const space = unit === '°' || unit === '' ? '' : ' ';
  return `${value > 0 && unit !== '' ? '+' : value < 0 ? '−' : ''}${Math.abs(value)}${space}${unit}`;
}
