import { Refusal } from '../core/refusal.ts';

/** The words of a command line: those before the first option, and those after each option. */
export interface Words {
  before: string[];
  options: Map<string, string[]>;
}

/**
 * Sorts words by the option they follow; an option takes all words up to the
 * next one and may be given again. `--name=value` works as well.
 *
 * @param known the options of the command, without their dashes
 * @param many those that take any number of words; the others take one
 * @throws Refusal for an option that is not known, or holds too few or too many words
 */
export function sortedWords(words: readonly string[], known: readonly string[], many: readonly string[] = []): Words {
  const before: string[] = [];
  const options = new Map<string, string[]>();
  let current: string | undefined;
  for (const word of words) {
    const found = /^--([a-z][a-z-]*)(?:=(.*))?$/s.exec(word);
    if (!found) {
      if (current === undefined) before.push(word);
      else {
        options.get(current)!.push(word);
        if (!many.includes(current)) current = undefined;
      }
      continue;
    }
    const [, name, value] = found;
    if (!known.includes(name!) && !many.includes(name!)) {
      throw new Refusal(
        `There is no option --${name} here; known are ${[...known, ...many].map((known) => `--${known}`).join(', ')}.`,
      );
    }
    if (options.has(name!) && !many.includes(name!)) throw new Refusal(`--${name} is given twice.`);
    options.set(name!, options.get(name!) ?? []);
    current = name;
    if (value !== undefined) {
      options.get(name!)!.push(value);
      if (!many.includes(name!)) current = undefined;
    }
  }
  for (const [name, values] of options) if (values.length === 0) throw new Refusal(`--${name} needs a value after it.`);
  return { before, options };
}

/** The one word of an option. */
export function wordOf({ options }: Words, name: string): string | undefined {
  return options.get(name)?.[0];
}
