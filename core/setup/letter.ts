/** The letter of the nth setup of a job, from 0: A … Z, AA, AB … */
export function setupLetter(index: number): string {
  const rest = Math.floor(index / 26);
  return (rest > 0 ? setupLetter(rest - 1) : '') + String.fromCharCode(65 + (index % 26));
}

/** The place of a setup's letter, from 0: `setupLetter` the other way. */
export function setupPosition(letter: string): number {
  return [...letter].reduce((sum, sign) => 26 * sum + sign.charCodeAt(0) - 64, 0) - 1;
}
