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
  /** The option that takes the next word. */
  let open: { words: string[]; takesMany: boolean } | undefined;
  for (const word of words) {
    const found = /^--([a-z][a-z-]*)(?:=(.*))?$/s.exec(word);
    if (!found) {
      if (!open) before.push(word);
      else {
        open.words.push(word);
        if (!open.takesMany) open = undefined;
      }
      continue;
    }
    const [, name = '', value] = found;
    const takesMany = many.includes(name);
    if (!known.includes(name) && !takesMany) {
      throw new Refusal(
        `There is no option --${name} here; known are ${[...known, ...many].map((option) => `--${option}`).join(', ')}.`,
      );
    }
    const earlier = options.get(name);
    if (earlier && !takesMany) throw new Refusal(`--${name} is given twice.`);
    const taken = earlier ?? [];
    options.set(name, taken);
    open = { words: taken, takesMany };
    if (value !== undefined) {
      taken.push(value);
      if (!takesMany) open = undefined;
    }
  }
  for (const [name, values] of options) if (values.length === 0) throw new Refusal(`--${name} needs a value after it.`);
  return { before, options };
}

/** The one word of an option. */
export function wordOf({ options }: Words, name: string): string | undefined {
  return options.get(name)?.[0];
}
