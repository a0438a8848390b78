import { usualDrift, type UsualDrift } from '../comparison/drift.ts';
import { nextRun, type NextRun } from '../judgement/next-run.ts';
import { paceOf } from '../judgement/pace.ts';
import type { RunOrder } from '../judgement/runs-to-show.ts';
import type { FamilyPair } from '../judgement/job-claims.ts';
import type { PairsOf } from './pairs/compared-pair.ts';
import type { SetupFigures } from './pairs/setup-figures.ts';
import type { CountedRun } from './runs/figured-run.ts';
import { findingsOf } from './runs/marked-runs.ts';

/** The pairs that are judged, each once. */
export function familyOf(setups: readonly SetupFigures[]): FamilyPair[] {
  return setups.flatMap(({ onParent, onBaseline }) =>
    [...new Set([onParent, onBaseline])].filter((pair) => pair !== undefined),
  );
}

/** What to run next: a setup without a run, else what the newest pair still wants. */
export function nextOfJob(
  { request, counted }: PairsOf,
  setups: readonly SetupFigures[],
  figured: readonly CountedRun[],
): NextRun {
  const { baselineId, plan, wantedShare } = request;
  const paceS = paceOf(figured.flatMap(({ run }) => run.conditions.startedAt?.getTime() ?? []));
  const newest = request.setups[request.setups.length - 1];
  const unrun = newest && counted(newest.id).length === 0 ? newest.id : undefined;
  const runs = (id: number) => counted(id).length;
  const pairs = familyOf(setups).map((pair) => ({
    pair,
    runs: {
      test: runs(pair.testId),
      baseline: runs(pair.againstId),
      order: orderOf(counted(pair.testId), counted(pair.againstId), figured, request.learned?.drift ?? usualDrift),
    },
  }));
  const ran = request.setups.findLast(({ id, decision }) => decision !== 'go back' && runs(id) > 0);
  const latest = ran && latestOf(counted(ran.id));
  const missing = { setupId: baselineId, runs: (plan?.runs ?? usualBaselineRuns) - runs(baselineId) };
  const repair =
    latest && !request.curvesOnly && hasReasonToStop(latest)
      ? { setupId: latest.run.setupId, label: latest.figures.label }
      : undefined;
  return nextRun(pairs, { repair, unrun, missing, wantedShare, paceS });
}

const timeOf = ({ run }: CountedRun) => run.conditions.startedAt?.getTime() ?? 0;

/** The run that was made last; the last of the list where nobody knows when. */
function latestOf(runs: readonly CountedRun[]): CountedRun | undefined {
  return runs.reduce<CountedRun | undefined>(
    (last, run) => (last && timeOf(last) > timeOf(run) ? last : run),
    undefined,
  );
}

/** Whether something was found on a run that nobody should run on with. */
const hasReasonToStop = (run: CountedRun) => findingsOf(run).some(({ severity }) => severity === 'stop');

/** Where the runs of a pair lie in the order of the job; undefined where that of one is not known. */
function orderOf(
  test: readonly CountedRun[],
  baseline: readonly CountedRun[],
  figured: readonly CountedRun[],
  { perRun }: UsualDrift,
): RunOrder | undefined {
  const places = (runs: readonly CountedRun[]) => runs.flatMap(({ run }) => run.place ?? []);
  const [ofTest, ofBaseline, all] = [places(test), places(baseline), places(figured)];
  if (ofTest.length < test.length || ofBaseline.length < baseline.length || all.length === 0) return undefined;
  return { test: ofTest, baseline: ofBaseline, next: Math.max(...all) + 1, driftPerRun: perRun };
}

/** Runs that a baseline usually has. */
const usualBaselineRuns = 3;
