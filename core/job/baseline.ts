import { isCounted, type CountableRun } from './counted.ts';

/** A frozen baseline: the list of runs that its setup stands for until another version replaces it. */
export interface FrozenBaseline {
  setupId: number;
  runIds: readonly number[];
  /** The spread of repeats as it was known when it was frozen. */
  spread?: { share: number; df: number; repeats?: number | undefined } | null | undefined;
}

/**
 * The setup that all others are compared with: the one chosen, else that of
 * the frozen baseline, else the job's first.
 *
 * @param setups of the job, in order; at least one
 * @param chosenId by a person, for this look at the job
 */
export function baselineSetup<Setup extends { id: number }>(
  setups: readonly Setup[],
  frozen: FrozenBaseline | null | undefined,
  chosenId?: number,
): Setup {
  const byId = (id: number | undefined) => setups.find((setup) => setup.id === id);
  return byId(chosenId) ?? byId(frozen?.setupId) ?? setups[0]!;
}

/** The setup that was made last. @param setups of a job, in order; at least one */
export function newestSetup<Setup>(setups: readonly Setup[]): Setup {
  return setups[setups.length - 1]!;
}

/**
 * Whether a run is in its setup's figures: a power run that is not set aside;
 * of a frozen setup, the runs on its list and no others.
 */
export function countsInFigures(
  run: CountableRun & { id: number },
  frozen: FrozenBaseline | null | undefined,
): boolean {
  return frozen && run.setupId === frozen.setupId ? frozen.runIds.includes(run.id) : isCounted(run);
}

/** The runs that a job's baseline stands for, in their order. */
export function baselineRuns<Run extends CountableRun & { id: number; state: string }>(
  runs: readonly Run[],
  setupId: number,
  frozen: FrozenBaseline | null | undefined,
): Run[] {
  return runs.filter((run) => run.setupId === setupId && run.state !== 'recording' && countsInFigures(run, frozen));
}
