import type { Setup } from '../../../../contract/job/records.ts';
import { setupWords } from '../../../../core/setup/setup-words.ts';

/** A setup by its letter and what changed. */
export function namedSetup(setups: readonly Setup[], letter: string): string {
  const setup = setups.find((one) => one.letter === letter);
  return setup ? `${letter}, ${setupWords(setups, setup)}` : letter;
}
