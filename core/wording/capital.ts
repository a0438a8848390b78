/** Words as the beginning of a sentence. */
export const capital = (words: string) => words.charAt(0).toUpperCase() + words.slice(1);
