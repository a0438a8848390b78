import { isCompared, type WholeRun } from '../../run-kinds/figures-of-kind.ts';
import { coastDown, type CoastDown } from '../../run-kinds/coast-down.ts';
import type { Recording } from '../../recording/recording.ts';
import { preparedSweep } from '../../reduction/prepared-sweep.ts';
import type { SweepDrive } from '../../reduction/sweep-drive.ts';
import { loggedPull, wholeLog, type LoggedPull, type LoggerBeside } from '../../log/view/logged-pull.ts';
import { unknownEngine } from '../../log/pull/run-log.ts';
import type { RunRecord } from '../request/job-record.ts';
import { unusableFor, type Unusable } from './unusable.ts';

/** What a recording holds, whatever it is looked at with: made once a run, for recordings never change. */
export type Reading =
  | { kind: 'sweep'; sweep: SweepDrive; logged: LoggedPull }
  | { kind: 'coast-down'; coast: CoastDown }
  /** A run of a kind with figures of its own: they depend on the fuel, which may be put right. */
  | { kind: 'whole'; whole: WholeRun }
  | { kind: 'unusable'; unusable: Unusable };

/** Kinds of runs that a power curve is made of. */
const sweptKinds: readonly RunRecord['kind'][] = ['power', 'conditioning', 'check'];

/** Whether a curve can be made of a run: it is a sweep, and has ended. */
export function hasCurve({ kind, state }: Pick<RunRecord, 'kind' | 'state'>): boolean {
  return state !== 'recording' && sweptKinds.includes(kind);
}

/**
 * What a run's recording holds. Never throws: a run that nothing can be made of stops no other.
 * @param beside what loggers recorded beside it; one that does not fit gives nothing
 */
export function readingOf(
  run: Pick<RunRecord, 'kind' | 'dyno' | 'engineToDrumRatio' | 'plan'>,
  recording: Recording,
  beside: readonly LoggerBeside[] = [],
): Reading {
  try {
    if (run.kind === 'coast-down') return { kind: 'coast-down', coast: coastDown(recording, run.dyno) };
    if (isCompared(run.kind))
      return {
        kind: 'whole',
        whole: {
          kind: run.kind,
          recording,
          dyno: run.dyno,
          engineToDrumRatio: run.engineToDrumRatio ?? undefined,
          beside,
          planned: run.plan?.steps ?? undefined,
        },
      };
    const sweep = preparedSweep(recording, run.dyno, run.engineToDrumRatio ?? undefined);
    return { kind: 'sweep', sweep, logged: loggedPull(wholeLog(recording, sweep, unknownEngine, beside)) };
  } catch (error) {
    return { kind: 'unusable', unusable: unusableFor(error) };
  }
}
