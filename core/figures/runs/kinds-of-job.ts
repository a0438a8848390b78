import { judgeKind, type KindJudgement } from '../../judgement/kind-judgement.ts';
import { Refusal } from '../../refusal.ts';
import { burntFuel } from '../../fuel/blend.ts';
import type { BurntFuel } from '../../run-kinds/cruise.ts';
import { comparedKinds, figuresOfKind, isCompared, type ComparedKind } from '../../run-kinds/figures-of-kind.ts';
import type { RunFigures } from '../../run-kinds/run-figure.ts';
import type { JobRecord, RunRecord } from '../request/job-record.ts';
import type { Reading } from './reading.ts';

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

/** Runs that are no power runs, before and after. */
export interface TestFigures {
  /** Of the two setups that are looked at. */
  shown: JudgedKind[];
  /** Of every setup against the one that it was changed from, where both have such runs. */
  steps: { testId: number; againstId: number; kinds: JudgedKind[] }[];
}

/** The tests of a setup against the one that it was changed from. */
export const judgedOfStep = (tests: TestFigures | undefined, setupId: number): KindJudgement[] =>
  tests?.steps.find(({ testId }) => testId === setupId)?.kinds.flatMap(({ judgement }) => judgement ?? []) ?? [];

/** The runs of a job that are laid side by side outside of its power figures: those that count, of the kinds that have figures of their own. */
export function runsOfOwnKinds<Run extends Pick<RunRecord, 'kind' | 'state' | 'setAsideReason' | 'setupId'>>(
  runs: readonly Run[],
): Run[] {
  return runs.filter(
    ({ kind, state, setAsideReason, setupId }) =>
      isCompared(kind) && state !== 'recording' && setAsideReason === null && setupId !== null,
  );
}

/** What a run burnt, as far as the job knows it. */
export const fuelOfRun = ({ ignition }: Pick<JobRecord, 'ignition'>, { fuel }: Pick<RunRecord, 'fuel'>): BurntFuel =>
  burntFuel(ignition ?? null, fuel?.ethanolPct ?? null);

/**
 * Results by reading, each with the fuel that it was made for: the view changes far more often than the fuel is put
 * right.
 */
const made = new WeakMap<Reading, { fuel: string; outcome: KindOutcome }>();

/** What a run of a kind of its own came to. */
export function outcomeOf(reading: Reading, fuel: BurntFuel): KindOutcome {
  if (reading.kind === 'unusable') return { why: reading.unusable.why };
  if (reading.kind !== 'whole') return { why: 'This run is of a kind without figures of its own.' };
  const key = JSON.stringify(fuel);
  const known = made.get(reading);
  if (known?.fuel === key) return known.outcome;
  const outcome = outcomeOfWhole(reading, fuel);
  made.set(reading, { fuel: key, outcome });
  return outcome;
}

function outcomeOfWhole({ whole }: Extract<Reading, { kind: 'whole' }>, fuel: BurntFuel): KindOutcome {
  try {
    return { figures: figuresOfKind(whole, fuel) };
  } catch (error) {
    if (error instanceof Refusal) return { why: error.message };
    throw error;
  }
}

/** Every kind of run that a job's setups have, judged: the two that are shown, and step by step. */
export function testFigures(
  job: Pick<JobRecord, 'setups' | 'runs' | 'ignition'>,
  readings: ReadonlyMap<number, Reading>,
  { againstId, testId }: { againstId: number; testId: number },
): TestFigures {
  const runs = runsOfOwnKinds(job.runs).flatMap((run): KindRunOfJob[] => {
    const reading = readings.get(run.id);
    const { id, label, setupId, kind } = run;
    return reading ? [{ id, label, setupId, kind, ...outcomeOf(reading, fuelOfRun(job, run)) }] : [];
  });
  const steps = job.setups.flatMap(({ id, parentId }) => {
    if (!parentId) return [];
    const kinds = judgedKinds(runs, parentId, id).filter(({ judgement }) => judgement);
    return kinds.length > 0 ? [{ testId: id, againstId: parentId, kinds }] : [];
  });
  return { shown: judgedKinds(runs, againstId, testId), steps };
}

/** Every kind that two setups have runs of, judged before and after by the one rule of core/judgement. */
export function judgedKinds(runs: readonly KindRunOfJob[], beforeId: number, afterId: number): JudgedKind[] {
  return comparedKinds.flatMap((kind) => {
    const ofKind = runs.filter((run) => run.kind === kind);
    const here = ofKind.filter(({ setupId }) => setupId === beforeId || setupId === afterId);
    if (here.length === 0) return [];
    const of = (setupId: number | null) =>
      ofKind
        .filter((run) => run.setupId === setupId)
        .flatMap(({ label, figures }) => (figures ? [{ label: label ?? '', figures: figures.figures }] : []));
    const [before, after] = [of(beforeId), of(afterId)];
    if (before.length === 0 || after.length === 0 || beforeId === afterId) return [{ kind, runs: here }];
    const others = [...new Set(ofKind.map(({ setupId }) => setupId))].filter((id) => id !== beforeId && id !== afterId);
    return [{ kind, judgement: judgeKind(kind, before, after, others.map(of)), runs: here }];
  });
}
