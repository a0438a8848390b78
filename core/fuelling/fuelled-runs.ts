import type { RunKind } from '../recording/run-kind.ts';

/** Kinds of runs that are held steady at part load, or may be for a while. */
const heldKinds: readonly RunKind[] = ['part-load', 'step', 'road-check'];

interface FuelledRunRecord {
  setupId: number | null;
  kind: RunKind;
  state: 'recording' | 'sealed' | 'interrupted';
  setAsideReason: string | null;
}

/** The runs of a setup that its fuelling errors are made of: holds and drives over the table that count. */
export function fuelledRuns<Run extends FuelledRunRecord>(runs: readonly Run[], setupId: number): Run[] {
  return runs.filter(
    (run) =>
      run.setupId === setupId &&
      run.state !== 'recording' &&
      run.setAsideReason === null &&
      heldKinds.includes(run.kind),
  );
}
