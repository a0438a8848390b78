import { useMemo } from 'react';
import type { Job, Run } from '../../../../contract/job/records.ts';
import { wholeDrums, groupingsOf } from '../../../../core/dyno/drums.ts';
import { stoichiometricOf } from '../../../../core/fuel/blend.ts';
import { baselineRuns, type FrozenBaseline } from '../../../../core/job/baseline.ts';
import { engineOfRun } from '../../../../core/figures/runs/engine-of-run.ts';
import { recordOfJob } from '../../../../core/figures/request/record-of-job.ts';
import { useLogMeans } from '../../../workers/figures.ts';
import type { LoggedSide } from '../../../../core/scene/channel-lane.ts';
import { drumLanes, figureLanes, groupingOf } from '../../../../core/scene/lane-list.ts';
import type { Shown } from '../../../../core/scene/shown-setups.ts';
import type { CompareView } from '../view/view-address.ts';

/** The latest of the runs that stand for a setup, a frozen list included; of some only, where only some are compared. */
function latestOf(
  { runs }: Job,
  setupId: number,
  frozen: FrozenBaseline | null,
  labels: readonly string[] | undefined,
): Run | undefined {
  return baselineRuns(runs, setupId, frozen)
    .filter((run) => run.state !== 'recording' && (!labels || (run.label !== null && labels.includes(run.label))))
    .at(-1);
}

/** Lanes beside the usual ones: drums by themselves, what the compared run and the loggers beside it recorded. */
export function offeredLanes(job: Job, view: CompareView): string[] {
  const run = latestOf(job, view.test.id, view.frozen, view.runs);
  const names = [...(run?.channels ?? []), ...(run?.logs ?? []).flatMap(({ channels }) => channels)].map(
    ({ name }) => name,
  );
  return [...drumLanesOf(run), ...new Set(names)].filter((name) => name !== 'engineSpeed');
}

/** The ways in which a run's drums can be told apart. */
function drumLanesOf(run: Run | undefined): string[] {
  if (!run) return [];
  const drums = wholeDrums(
    run.channels.map(({ name }) => name),
    run.dyno.kind,
  );
  const groupings = drums ? groupingsOf(drums.map(({ place }) => place)) : [];
  return Object.keys(drumLanes).filter((lane) => groupings.includes(drumLanes[lane]!));
}

/**
 * The logs that channel lanes are drawn from: the latest run of every setup
 * shown, the compared one last; fetched only when a lane wants them.
 */
export function useLoggedSides(
  job: Job,
  guest: Job | undefined,
  view: CompareView,
  shown: readonly Shown[],
): LoggedSide[] {
  const wanted = view.lanes.some((lane) => !(figureLanes as readonly string[]).includes(lane) && !groupingOf(lane));
  const sides = useMemo(() => (wanted ? sidesOf(job, guest, view, shown) : []), [wanted, job, guest, view, shown]);
  const logs = useLogMeans(sides.map(({ from, run }) => [{ run, engine: engineOfRun(recordOfJob(from), run) }]));
  return useMemo(() => sides.map(({ side }, at) => ({ ...side, log: logs[at] })), [sides, logs]);
}

/** Which run stands for each line, and whose job it is of. */
function sidesOf(job: Job, guest: Job | undefined, view: CompareView, shown: readonly Shown[]) {
  const seen = new Set<number>();
  const found = shown.flatMap(({ setup, colour, place, isTest }) => {
    const isAgainst = setup.id === view.against.id;
    const from = isAgainst && guest ? guest : job;
    const frozen = from === guest ? guest.baseline : view.frozen;
    const run = latestOf(from, setup.id, frozen, isTest ? view.runs : isAgainst ? view.againstRuns : undefined);
    if (!run) return [];
    const stoichiometric = stoichiometricOf(from.car.ignition, run.fuel?.ethanolPct ?? null);
    return [{ from, run, side: { label: run.label ?? '', colour, place, stoichiometric } }];
  });
  // Where one run stands for two lines, the compared one is drawn.
  return found
    .reverse()
    .filter(({ run }) => !seen.has(run.id) && seen.add(run.id))
    .reverse();
}
