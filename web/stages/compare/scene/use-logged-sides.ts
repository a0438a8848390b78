import { useMemo } from 'react';
import type { Job, Run } from '../../../../contract/records.ts';
import { wholeDrums, groupingsOf } from '../../../../core/dyno/drums.ts';
import { stoichiometricOf } from '../../../../core/fuel/blend.ts';
import { baselineRuns, type FrozenBaseline } from '../../../../core/job/baseline.ts';
import type { LogView } from '../../../../core/log/log-view.ts';
import { useRunLog } from '../../../log/use-run-log.ts';
import type { LoggedSide } from './channel-lane.ts';
import { drumLanes, figureLanes, groupingOf } from '../view/lane-list.ts';
import type { Shown } from './shown-setups.ts';
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
  const drums = wholeDrums(run.channels.map(({ name }) => name), run.dyno.kind); // prettier-ignore
  const groupings = drums ? groupingsOf(drums.map(({ place }) => place)) : [];
  return Object.keys(drumLanes).filter((lane) => groupings.includes(drumLanes[lane]!));
}

/** The logs of the two runs that channel lanes are drawn from, the compared one last; fetched only when a lane wants them. */
export function useLoggedSides(
  job: Job,
  guest: Job | undefined,
  view: CompareView,
  shown: readonly Shown[],
): LoggedSide[] {
  const wanted = view.lanes.some((lane) => !(figureLanes as readonly string[]).includes(lane) && !groupingOf(lane));
  const test = wanted ? latestOf(job, view.test.id, view.frozen, view.runs) : undefined;
  const against = wanted
    ? latestOf(guest ?? job, view.against.id, guest ? guest.baseline : view.frozen, view.againstRuns)
    : undefined;
  const { data: testLog } = useRunLog(job, test);
  const { data: againstLog } = useRunLog(guest ?? job, against);
  return useMemo(() => {
    const side = ({ car }: Job, run: Run, setupId: number, log: LogView | undefined): LoggedSide[] => {
      const drawn = shown.find(({ setup }) => setup.id === setupId);
      return drawn
        ? [
            {
              label: run.label ?? '',
              colour: drawn.colour,
              place: drawn.place,
              stoichiometric: stoichiometricOf(car.ignition, run.fuel?.ethanolPct ?? null),
              log,
            },
          ]
        : [];
    };
    return [
      ...(against && against.id !== test?.id ? side(guest ?? job, against, view.against.id, againstLog) : []),
      ...(test ? side(job, test, view.test.id, testLog) : []),
    ];
  }, [against, test, againstLog, testLog, shown, view.against.id, view.test.id, job, guest]);
}
