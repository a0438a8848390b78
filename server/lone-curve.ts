import type { Run } from '../contract/job/records.ts';
import type { Curve } from '../core/figures/runs/corrected-curve.ts';
import { loneCurveOf, type CurveView } from '../core/figures/curve-of-run.ts';
import type { Database } from '../store/database/database.ts';
import { recordingOf } from '../store/runs/samples.ts';

/** The curve of a run by itself, whatever its job; undefined where none can be made of it. */
export async function loneCurve(database: Database, run: Run, view: CurveView): Promise<Curve | undefined> {
  return loneCurveOf(run, await recordingOf(database, run), view);
}
