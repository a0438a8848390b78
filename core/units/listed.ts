const and = new Intl.ListFormat('en-GB');

/** Several things in a sentence: `a`, `a and b`, `a, b and c`. */
export const listed = (words: readonly string[]): string => and.format(words);
