/** Runs farther apart than this were probably not made on one strapping, h. */
export const remountAfterH = 12;
export const remountAfterMs = remountAfterH * 3600e3;

/**
 * Things in lists, one a strapping: a new one begins in another bay, where
 * somebody said so, and where nobody said anything and more than twelve hours
 * lie between one and the next.
 * @param mountedOf when and where each was made
 * @returns in the order of time
 */
export function byMounting<Made>(
  made: readonly Made[],
  mountedOf: (item: Made) => Mounted & { atMs: number },
): Made[][] {
  const lists: Made[][] = [];
  let last: Mounted & { atMs: number } = { atMs: -Infinity };
  for (const item of [...made].sort((a, b) => mountedOf(a).atMs - mountedOf(b).atMs)) {
    const current = lists.at(-1);
    const now = mountedOf(item);
    const moved = last.bay !== undefined && now.bay !== undefined && last.bay !== now.bay;
    if (!current || moved || (now.remounted ?? now.atMs - last.atMs > remountAfterMs)) lists.push([item]);
    else current.push(item);
    last = now;
  }
  return lists;
}

/** A run as its strapping is told. */
export interface Mounted {
  atMs?: number | undefined;
  /** Whether the car was strapped anew before it, where somebody said. */
  remounted?: boolean | null | undefined;
  /** Where it was made, where that is known: a car that goes to another bay is strapped anew. */
  bay?: number | undefined;
}

/** Whether runs lie on more than one strapping; those whose time nobody knows say nothing. */
export function mountedAnew(runs: readonly Mounted[]): boolean {
  const timed = runs.flatMap(({ atMs, ...run }) => (atMs === undefined ? [] : [{ atMs, ...run }]));
  return byMounting(timed, (run) => run).length > 1;
}
