import type { Run } from '../contract/records.ts';
import type { Curve } from '../core/figures/corrected-curve.ts';
import { curveOfRun, loneRun, type CurveView } from '../core/figures/curve-of-run.ts';
import { readingOf } from '../core/figures/reading.ts';
import { Refusal } from '../core/refusal.ts';
import type { Database } from '../store/database.ts';
import { recordingOf } from '../store/samples.ts';

/** The curve of a run by itself, whatever its job; undefined where none can be made of it. */
export async function loneCurve(database: Database, run: Run, view: CurveView): Promise<Curve | undefined> {
  const { job, run: alone } = loneRun(run);
  const readings = new Map([[run.id, readingOf(run, await recordingOf(database, run))]]);
  try {
    return curveOfRun(job, alone, view, readings);
  } catch (error) {
    if (error instanceof Refusal) return undefined;
    throw error;
  }
}
