/** The eight hues of setups, fixed by letter; after eight they repeat with another dash. */
const hues = 8;

/** The order of a setup in its job, from its letter: A is 0, AA 26. */
export function positionOfLetter(letter: string): number {
  return [...letter].reduce((sum, character) => sum * 26 + character.charCodeAt(0) - 64, 0) - 1;
}

/** A setup's colour as a CSS value: ink for the baseline, else the hue of its letter. */
export function setupColour(letter: string, isBaseline: boolean): string {
  return isBaseline ? 'var(--ink)' : `var(--setup-${positionOfLetter(letter) % hues})`;
}

/** The dash of a setup's lines: solid for the first eight letters. */
export function setupDash(letter: string): number[] {
  return [[], [7, 3], [2, 2], [9, 3, 2, 3]][Math.floor(positionOfLetter(letter) / hues) % 4]!;
}
