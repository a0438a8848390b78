/** The letter of the nth setup of a job, from 0: A … Z, AA, AB … */
export function setupLetter(index: number): string {
  const rest = Math.floor(index / 26);
  return (rest > 0 ? setupLetter(rest - 1) : '') + String.fromCharCode(65 + (index % 26));
}
