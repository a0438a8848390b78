/** What is needed of a run to tell whether it is in figures. */
export interface CountableRun {
  setupId: number | null;
  kind: string;
  setAsideReason: string | null;
}

/** A run is in figures when it is a power run that nobody has set aside. */
export function isCounted({ kind, setAsideReason }: Pick<CountableRun, 'kind' | 'setAsideReason'>): boolean {
  return kind === 'power' && setAsideReason === null;
}

/** A setup's runs that are in figures, in their order. */
export function countedRuns<Run extends CountableRun>(runs: readonly Run[], setupId: number): Run[] {
  return runs.filter((run) => run.setupId === setupId && isCounted(run));
}

/** The setups that some of the runs were made of, in their order. */
export function ranSetups<S extends { id: number }>(
  setups: readonly S[],
  runs: readonly { setupId: number | null }[],
): S[] {
  return setups.filter(({ id }) => runs.some(({ setupId }) => setupId === id));
}
