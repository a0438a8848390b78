import { baselineSetup } from '../job/baseline.ts';
import type { Recording } from '../recording/recording.ts';
import { Refusal } from '../refusal.ts';
import type { Curve } from './runs/corrected-curve.ts';
import type { FiguresView } from './request/figures-request.ts';
import type { JobRecord, RunRecord } from './request/job-record.ts';
import { makeJobFigures, spanRuns } from './make-job-figures.ts';
import { readingOf, type Reading } from './runs/reading.ts';

/** The settings of a single run's curve. */
export type CurveView = Pick<FiguresView, 'standard' | 'share' | 'smoothing' | 'gridRpm'>;

type LoneRun = Omit<RunRecord, 'setupId'>;

/** A run that belongs to no job, as the only one of a job of its own. */
export function loneRun(run: LoneRun, ignition: JobRecord['ignition'] = null): { job: JobRecord; run: RunRecord } {
  const alone = { ...run, setupId: 1 };
  return {
    job: { vehicle: '', ignition, setups: [{ id: 1, letter: 'A' }], runs: [alone], baseline: null },
    run: alone,
  };
}

/** Runs whose recordings a single run's curve rests on: itself, and those that auto smoothing takes its span from. */
export function runsBehindCurve<Run extends RunRecord>(
  job: { setups: JobRecord['setups']; runs: readonly Run[]; baseline: JobRecord['baseline'] },
  run: Run,
  { smoothing }: Pick<CurveView, 'smoothing'>,
): Run[] {
  if (smoothing !== 'auto') return [run];
  const baseline = baselineSetup(job.setups, job.baseline);
  return [run, ...spanRuns(job, baseline.id, job.baseline).filter(({ id }) => id !== run.id)];
}

/**
 * The curve of one run of a job, as the job's figures show it.
 *
 * @param readings of the runs behind it
 * @throws Refusal with what is wrong with its recording
 */
export function curveOfRun(
  job: JobRecord,
  run: Pick<RunRecord, 'id'>,
  view: CurveView,
  readings: ReadonlyMap<number, Reading>,
): Curve {
  const figures = makeJobFigures({ job, view: { ...view, curvesOnly: true, powerUnit: 'kW' } }, readings);
  const made = figures.runs.find(({ id }) => id === run.id);
  if (made) return made.curve;
  const { cause, why } = figures.unusable.find(({ id }) => id === run.id) ?? {};
  if (cause instanceof Error && !(cause instanceof Refusal)) throw cause;
  throw new Refusal(why ?? 'No power curve is made of a run of this kind.');
}

/** The curve of a run by itself, whatever its job; undefined where none can be made of it. */
export function loneCurveOf(run: LoneRun, recording: Recording, view: CurveView): Curve | undefined {
  const { job, run: alone } = loneRun(run);
  try {
    return curveOfRun(job, alone, view, new Map([[run.id, readingOf(run, recording)]]));
  } catch (error) {
    if (error instanceof Refusal) return undefined;
    throw error;
  }
}
