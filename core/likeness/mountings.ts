/** Runs farther apart than this were probably not made on one strapping, h. */
export const remountAfterH = 12;
export const remountAfterMs = remountAfterH * 3600e3;

/**
 * Things in lists, one a strapping: a new one begins where somebody said so,
 * and where nobody said anything and more than twelve hours lie between one
 * and the next.
 * @param atMs when each was made
 * @param anew whether the car was strapped anew before it, where somebody said
 * @returns in the order of time
 */
export function byMounting<Made>(
  made: readonly Made[],
  atMs: (item: Made) => number,
  anew: (item: Made) => boolean | null | undefined = () => undefined,
): Made[][] {
  const lists: Made[][] = [];
  let last = -Infinity;
  for (const item of [...made].sort((a, b) => atMs(a) - atMs(b))) {
    const current = lists.at(-1);
    if (!current || (anew(item) ?? atMs(item) - last > remountAfterMs)) lists.push([item]);
    else current.push(item);
    last = atMs(item);
  }
  return lists;
}

/** A run as its strapping is told. */
export interface Mounted {
  atMs?: number | undefined;
  remounted?: boolean | null | undefined;
}

/** Whether runs lie on more than one strapping; those whose time nobody knows say nothing. */
export function mountedAnew(runs: readonly Mounted[]): boolean {
  const timed = runs.flatMap(({ atMs, remounted }) => (atMs === undefined ? [] : [{ atMs, remounted }]));
  return (
    byMounting(
      timed,
      ({ atMs }) => atMs,
      ({ remounted }) => remounted,
    ).length > 1
  );
}
