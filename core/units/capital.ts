/** Words as the beginning of a sentence; λ is a symbol and stays as it is. */
export const capital = (words: string) =>
  words.startsWith('λ') ? words : words.charAt(0).toUpperCase() + words.slice(1);
