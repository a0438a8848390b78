import { useMemo } from 'react';
import type { Job } from '../../../contract/job/records.ts';
import type { JobFigures } from '../../../core/figures/job-figures.ts';
import type { LogView, ShownEvent } from '../../../core/log/view/log-view.ts';
import { laneGroups } from '../../../core/log/view/lane-groups.ts';
import type { Told } from '../../../core/units/told-units.ts';
import { axisText, toldAxis } from '../../../core/scene/lane-axis.ts';
import { toldLog } from '../../log/told-log.ts';
import { ratioOfRun, useOwnUnits } from '../../units/use-own-units.tsx';
import type { AxisRange } from '../../../core/scene/scene.ts';
import { api } from '../../state/api.ts';
import { useChange } from '../../state/use-change.ts';
import { ChannelTable } from './channel-table.tsx';
import { LogsHead } from './logs-head.tsx';
import { LaneChoice } from './lane-choice.tsx';
import { FindingsStrip } from './lanes/findings-strip.tsx';
import { LogLanes, stepped, within } from './lanes/log-lanes.tsx';
import { groupLane, placeOf, wholeOf } from './lanes/log-scene.ts';
import classes from './logs-stage.module.css';
import { LogSidePane } from './side/log-side-pane.tsx';
import { peakPlace, useTelling } from './use-logs.ts';
import { besideOf, type LabelledRun } from './view/beside.ts';
import type { LogsView } from './view/log-address.ts';
import { useBesideLogs } from './view/use-beside-logs.ts';
import type { ChangeLogsView } from './view/use-logs-view.ts';

interface RunLogPanesProps {
  job: Job;
  run: LabelledRun;
  colour: string;
  figures: JobFigures | undefined;
  log: LogView | undefined;
  problem: string | undefined;
  view: LogsView;
  change: ChangeLogsView;
  baselineId: number;
}

/** An event over more than this share of the axis is not zoomed to. */
const wholeShare = 0.6;

/** One run's log: where what happened, the lanes, all other channels, and what it says. */
export function RunLogPanes({ job, run, colour, figures, log, problem, view, change, baselineId }: RunLogPanesProps) {
  const telling = useTelling(job, run, log, baselineId, view.axis);
  const besideNames = view.beside?.join('.');
  const beside = useMemo(() => besideOf(job, run, besideNames?.split('.')), [job, run, besideNames]);
  const besideLogs = useBesideLogs(job, beside);
  const changeJob = useChange((pinnedChannels: string[]) => api.changeJob(job.id, { pinnedChannels }));
  const { axis } = view;
  const own = useOwnUnits();
  const ratio = ratioOfRun(job, run);
  const main = useMemo(
    () => (log ? { label: run.label, colour, log: toldLog(log, own, ratio) } : undefined),
    [run.label, colour, log, own, ratio],
  );
  const groups = useMemo(() => laneGroups(log?.channels.map(({ name }) => name) ?? []), [log]);
  const openedNames = (view.lanes ?? telling?.first)?.join('.');
  const lanes = useMemo(() => {
    if (!main || !log || !telling || openedNames === undefined) return [];
    return openedNames.split('.').flatMap((id) => {
      const group = groups.find((candidate) => candidate.id === id || candidate.channels.includes(id));
      return group
        ? [groupLane(group, { main, beside: besideLogs, events: log.events, limits: telling.limits, axis, own })]
        : [];
    });
  }, [main, log, telling, groups, openedNames, besideLogs, axis, own]);
  const head = (choice?: React.ReactNode) => (
    <LogsHead job={job} run={run} log={log} view={view} change={change} choice={choice} />
  );
  // Rendered in the same place as when the log is there, so that what was opened from its head meanwhile stays open.
  if (problem)
    return (
      <>
        <main className={classes.main} aria-label="Logs">
          {head()}
          <p className={classes.message} role="alert">
            The log could not be read: {problem}
          </p>
        </main>
      </>
    );
  if (!main || !log || !telling)
    return (
      <>
        <main className={classes.main} aria-label="Logs" aria-busy>
          {head()}
        </main>
      </>
    );
  const opened = lanes.map(({ id }) => id);
  const inLanes = telling.groups.filter(({ id }) => opened.includes(id)).flatMap(({ channels }) => channels);
  const others = telling.groups
    .flatMap(({ channels }) => channels)
    .filter((name) => !inLanes.includes(name))
    .flatMap((name) => main.log.channels.find((channel) => channel.name === name) ?? []);
  const whole = wholeOf(main, axis);
  const rest = peakPlace(figures, run.id, log, axis);
  const at = view.at ?? rest;
  const goTo = (event: ShownEvent) => {
    const [from, to] = placeOf(event, axis, log.startS);
    // What lasts through most of the pull is seen best in the whole.
    const wide = to - from > wholeShare * (whole[1] - whole[0]);
    const around = Math.max(0.06 * (whole[1] - whole[0]), 0.4 * (to - from));
    const named = groups.filter(({ channels }) => channels.some((name) => event.channels.includes(name)));
    const more = named.map(({ id }) => id).filter((id) => !opened.includes(id));
    change({
      at: stepped(axis, (from + to) / 2),
      zoom: wide ? undefined : [Math.max(whole[0], from - around), Math.min(whole[1], to + around)],
      ...(more.length > 0 ? { lanes: [...opened, ...more] } : {}),
    });
  };
  const pin = (channel: string) =>
    changeJob.mutate(
      job.pinnedChannels.includes(channel)
        ? job.pinnedChannels.filter((other) => other !== channel)
        : [...job.pinnedChannels, channel],
    );
  return (
    <>
      <main className={classes.main} aria-label="Logs">
        {head(
          <LaneChoice
            telling={telling}
            opened={opened}
            usual={view.lanes === undefined}
            pinned={job.pinnedChannels}
            change={change}
            onPin={pin}
          />,
        )}
        <div className={classes.strip}>
          <FindingsStrip
            label={run.label}
            events={log.events}
            axis={axis}
            startS={log.startS}
            whole={whole}
            range={within(view.zoom, whole)}
            chosen={log.events.find((event) => isAt(placeOf(event, axis, log.startS), view))}
            onChoose={goTo}
          />
          {view.zoom && (
            <button className={classes.whole} onClick={() => change({ zoom: undefined })}>
              Whole range
            </button>
          )}
        </div>
        <div
          className={classes.lanes}
          style={{ minHeight: lanes.length * 58 + 34, '--lanes': lanes.length } as React.CSSProperties}
        >
          <LogLanes lanes={lanes} whole={whole} view={view} rest={rest} change={change} />
        </div>
        <div className={classes.table}>
          <ChannelTable
            main={main}
            against={besideLogs[0]}
            channels={others}
            at={at === undefined ? undefined : { x: at, words: placeWords(view, rest, toldAxis(axis, own)) }}
            axis={axis}
            far={telling.far}
            pinned={job.pinnedChannels}
            onOpen={(channel) => change({ lanes: [...opened, channel] })}
            onPin={pin}
          />
        </div>
      </main>
      <LogSidePane job={job} run={run} log={log} figures={figures} beside={besideLogs} onChoose={goTo} />
    </>
  );
}

/** Whether the crosshair was set in the middle of it: it is the one that was pressed. */
function isAt([from, to]: AxisRange, { at, axis }: LogsView): boolean {
  return at === stepped(axis, (from + to) / 2);
}

function placeWords({ at }: LogsView, rest: number | undefined, told: Told): string {
  if (at === undefined) return 'at the power peak';
  return `at ${axisText(at, told)}${at === rest ? ', the power peak' : ''}`;
}
