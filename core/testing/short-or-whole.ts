/** Whether tests run in whole (`npm run soak`), or in the short form that `npm test` has of the longest. */
export const inWhole = process.env.SUVOK_SOAK !== undefined;

export const shortOrWhole = <T>(short: T, whole: T): T => (inWhole ? whole : short);

/** Of what is tried one after the other: all in whole; in short so many, spread evenly, the first and the last among them. */
export function someInShort<T>(all: readonly T[], most: number): readonly T[] {
  if (inWhole || all.length <= most) return all;
  return Array.from({ length: most }, (_, at) => all[Math.round((at * (all.length - 1)) / (most - 1))]!);
}
