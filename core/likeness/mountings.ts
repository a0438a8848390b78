/** Runs farther apart than this were probably not made on one strapping, h. */
export const remountAfterH = 12;
export const remountAfterMs = remountAfterH * 3600e3;

/**
 * Things in lists, one a strapping: a new one begins where more than twelve
 * hours lie between one and the next.
 * @param atMs when each was made
 * @returns in the order of time
 */
export function byMounting<Made>(made: readonly Made[], atMs: (item: Made) => number): Made[][] {
  const lists: Made[][] = [];
  let last = -Infinity;
  for (const item of [...made].sort((a, b) => atMs(a) - atMs(b))) {
    if (atMs(item) - last > remountAfterMs) lists.push([item]);
    else lists.at(-1)?.push(item);
    last = atMs(item);
  }
  return lists;
}
