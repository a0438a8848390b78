/** A name for a file, without its ending, that every system takes. */
export const fileNameOf = (text: string): string =>
  text
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .replace(/^-|-$/g, '')
    .slice(0, 120);
