import { judgeKind, type KindJudgement } from '../judgement/kind-judgement.ts';
import { comparedKinds, isCompared, type ComparedKind } from '../run-kinds/figures-of-kind.ts';
import type { RunFigures } from '../run-kinds/run-figure.ts';
import type { RunRecord } from './job-record.ts';

/** What a run of a kind of its own came to: its figures, or why it has none. */
export interface KindOutcome {
  figures?: RunFigures;
  why?: string;
}

/** A run of such a kind with what it came to. */
export type KindRunOfJob = Pick<RunRecord, 'id' | 'label' | 'setupId' | 'kind'> & KindOutcome;

/** A kind of run in two setups. */
export interface JudgedKind {
  kind: ComparedKind;
  /** Absent where only one of the two has such runs. */
  judgement?: KindJudgement;
  /** Runs of either setup, those that count. */
  runs: KindRunOfJob[];
}

/** The runs of a job that are laid side by side outside of its power figures: those that count, of the kinds that have figures of their own. */
export function runsOfOwnKinds<Run extends Pick<RunRecord, 'kind' | 'state' | 'setAsideReason' | 'setupId'>>(
  runs: readonly Run[],
): Run[] {
  return runs.filter(({ kind, state, setAsideReason, setupId }) => isCompared(kind) && state !== 'recording' && setAsideReason === null && setupId !== null); // prettier-ignore
}

/** Every kind that two setups have runs of, judged before and after by the one rule of core/judgement. */
export function judgedKinds(runs: readonly KindRunOfJob[], beforeId: number, afterId: number): JudgedKind[] {
  return comparedKinds.flatMap((kind) => {
    const ofKind = runs.filter((run) => run.kind === kind);
    const here = ofKind.filter(({ setupId }) => setupId === beforeId || setupId === afterId);
    if (here.length === 0) return [];
    const of = (setupId: number | null) =>
      ofKind.filter((run) => run.setupId === setupId).flatMap(({ label, figures }) => (figures ? [{ label: label ?? '', figures: figures.figures }] : [])); // prettier-ignore
    const [before, after] = [of(beforeId), of(afterId)];
    if (before.length === 0 || after.length === 0 || beforeId === afterId) return [{ kind, runs: here }];
    const others = [...new Set(ofKind.map(({ setupId }) => setupId))].filter((id) => id !== beforeId && id !== afterId);
    return [{ kind, judgement: judgeKind(kind, before, after, others.map(of)), runs: here }];
  });
}
