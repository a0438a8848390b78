/** What is needed of a setup to find what it is compared with. */
export interface SidedSetup {
  id: number;
  parentId?: number | null | undefined;
}

/** The setup that is looked at where none was chosen: the newest that ran, else the baseline. */
export function usualTest<Setup extends SidedSetup>(ran: readonly Setup[], baseline: Setup): Setup {
  return ran.at(-1) ?? baseline;
}

/**
 * What a setup is compared with where nothing was chosen: its parent; where
 * that has no run, the nearest earlier one that has; else any other that ran.
 *
 * @returns the setup itself where no other ran
 */
export function usualAgainst<Setup extends SidedSetup>(
  setups: readonly Setup[],
  test: Setup,
  ran: readonly Setup[],
): Setup {
  const parentOf = ({ parentId }: Setup) => setups.find(({ id }) => id === parentId);
  let candidate = parentOf(test);
  while (candidate && !ran.includes(candidate)) candidate = parentOf(candidate);
  return candidate ?? ran.find(({ id }) => id !== test.id) ?? test;
}
