/** Deeper branches are drawn no further to the right. */
const deepest = 3;

/**
 * How far each setup of a job stands to the right in a list that runs from
 * first to newest: one that goes on from the setup above it stands under it,
 * one that goes back to an earlier setup branches off.
 *
 * @param setups in order
 * @returns by setup id
 */
export function branchDepths(setups: readonly { id: number; parentId: number | null }[]): Map<number, number> {
  const depths = new Map<number, number>();
  setups.forEach(({ id, parentId }, index) => {
    const above = setups[index - 1];
    const parent = parentId === null ? undefined : depths.get(parentId);
    if (parent === undefined) depths.set(id, 0);
    else if (above?.id === parentId) depths.set(id, parent);
    else depths.set(id, Math.min(deepest, parent + 1));
  });
  return depths;
}
