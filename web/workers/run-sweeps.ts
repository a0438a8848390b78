import type { Run } from '../../contract/records.ts';
import { curveOf, preparedSweep, usualGridRpm, type ViewSettings } from '../../core/reduction/reduce.ts';
import type { SweepDrive } from '../../core/reduction/sweep-drive.ts';
import { recordingFromBytes } from './recording-bytes.ts';

/** Kinds of runs that a power curve is made of. */
const curved: readonly Run['kind'][] = ['power', 'conditioning', 'check'];

/** Whether a curve can be made of a run: it is a sweep, and has ended. */
export function hasCurve({ kind, state }: Run): boolean {
  return state !== 'recording' && curved.includes(kind);
}

/** Sweeps made ready, by run: recordings never change once a run has ended. The oldest give way to new ones. */
const sweeps = new Map<number, Promise<SweepDrive>>();
const mostSweeps = 400;
const anyView: ViewSettings = { standard: 'none', share: 1, spanRpm: 300, gridRpm: usualGridRpm };

/** Samples did not come: no fault of the run's, and worth another try. */
export class NotFetched extends Error {
  constructor() {
    super('the samples did not come from the server. What was recorded is kept; check that Suvok is running');
  }
}

/**
 * A run's samples as they are stored.
 * @param source a logger beside the dyno; the dyno's own where left out
 * @throws NotFetched
 */
export async function recordingOf(run: Run, source?: number): Promise<ArrayBuffer> {
  const path = `/api/runs/${run.id}/recording${source === undefined ? '' : `?source=${source}`}`;
  const response = await fetch(path).catch(() => undefined);
  if (!response?.ok) throw new NotFetched();
  return response.arrayBuffer();
}

async function sweepOf(run: Run): Promise<SweepDrive> {
  return preparedSweep(recordingFromBytes(await recordingOf(run)), run.dyno, run.engineToDrumRatio ?? undefined);
}

/** A run's sweep, made ready once. @throws NotFetched, or Refusal with what is wrong with the run */
export function cachedSweep(run: Run): Promise<SweepDrive> {
  const cached = sweeps.get(run.id) ?? sweepOf(run);
  // Asked for again it is the newest.
  sweeps.delete(run.id);
  sweeps.set(run.id, cached);
  if (sweeps.size > mostSweeps) sweeps.delete(sweeps.keys().next().value!);
  cached.catch(() => sweeps.delete(run.id));
  return cached;
}

/** Makes runs ready that figures will be asked of soon; what fails is said when they are. */
export async function prepareRuns(runs: readonly Run[]): Promise<void> {
  for (const run of runs.filter(hasCurve))
    // One curve looks at everything in the run that does not depend on the view.
    await cachedSweep(run)
      .then((sweep) => curveOf(sweep, undefined, anyView))
      .catch(() => undefined);
}
