import { useHotkeys, type HotkeyItem } from '@mantine/hooks';
import { notifications } from '@mantine/notifications';
import { useMemo, useRef, useState } from 'react';
import type { Job } from '../../../contract/records.ts';
import type { JobFigures } from '../../../core/gain/job-figures.ts';
import { axisWidth } from '../../charts/lane.tsx';
import { SpeedAxis } from '../../charts/speed-axis.tsx';
import classes from './compare-lanes.module.css';
import { ChannelLane } from './channel-lane.tsx';
import { GainLane } from './gain-lane.tsx';
import { figureLanes, laneShare } from './lane-list.ts';
import { useLoggedSides } from './use-logged-sides.ts';
import { PowerLane, TorqueLane } from './mean-lanes.tsx';
import { readingsAt } from './readings.ts';
import { shownSetups, speedRange } from './shown-setups.ts';
import { useZoom } from './use-zoom.ts';
import type { ChangeView, CompareView } from './view.ts';

interface CompareLanesProps {
  job: Job;
  figures: JobFigures;
  view: CompareView;
  change: ChangeView;
  /** Shown large: the arrow keys belong to the steps. */
  presenting?: boolean;
}

const gutterWidth = 108;

/** Power, torque and gain over one engine-speed axis, under one crosshair. */
export function CompareLanes({ job, figures, view, change, presenting = false }: CompareLanesProps) {
  const plot = useRef<HTMLDivElement>(null);
  const [hoverRpm, setHoverRpm] = useState<number>();
  // Kept while the pointer moves, so that the lanes are not drawn anew under it.
  const shown = useMemo(() => shownSetups(job, figures, view), [job, figures, view]);
  const whole = useMemo(() => speedRange(shown.map(({ figures: one }) => one.power.engineSpeedRpm)), [shown]);
  const range = useMemo(() => within(view.zoom, whole), [view.zoom, whole]);
  // A crosshair that was set stays where it is; the pointer only shows one while there is none.
  const atRpm = view.atRpm ?? hoverRpm;
  const zoom = useZoom({ plot, whole, range, inset: { left: axisWidth, right: gutterWidth }, change, view });
  const rpmAt = (clientX: number) => {
    const box = plot.current!.getBoundingClientRect();
    const share = (clientX - box.left - axisWidth) / (box.width - axisWidth - gutterWidth);
    return share < 0 || share > 1 ? undefined : Math.round((range[0] + share * (range[1] - range[0])) / 10) * 10;
  };
  const middle = Math.round((range[0] + range[1]) / 200) * 100;
  const step = (rpm: number) => () =>
    change((at) => ({ at: Math.min(whole[1], Math.max(whole[0], (at ?? hoverRpm ?? middle) + rpm)) }));
  const copy = () => {
    if (atRpm === undefined) return;
    void navigator.clipboard.writeText(readingsAt(shown, figures, view, atRpm)).then(
      () =>
        notifications.show({
          message: `The readings at ${atRpm.toLocaleString('en-GB')} rpm are copied.`,
          autoClose: 2500,
        }),
      () => notifications.show({ message: 'The browser does not let the readings be copied.', color: 'red' }),
    );
  };
  useHotkeys([
    ...(presenting
      ? []
      : ([
          ['ArrowRight', step(10)],
          ['ArrowLeft', step(-10)],
          ['shift+ArrowRight', step(100)],
          ['shift+ArrowLeft', step(-100)],
          ['Escape', () => change({ at: undefined })],
        ] as HotkeyItem[])),
    ['c', copy],
    ['+', () => zoom.zoomAt(0.5, 0.7)],
    ['shift++', () => zoom.zoomAt(0.5, 0.7)],
    ['-', () => zoom.zoomAt(0.5, 1.4)],
    ['0', () => change({ zoom: undefined })],
  ]);
  const lanes = presenting ? figureLanes : view.lanes;
  const sides = useLoggedSides(job, view, shown);
  if (shown.length === 0) return null;
  const common = { range, atRpm, view, shown };
  const bandName =
    view.band && job.bands.find((one) => one.fromRpm === view.band![0] && one.toRpm === view.band![1])?.name;
  const share = atRpm === undefined ? undefined : (atRpm - range[0]) / (range[1] - range[0]);
  return (
    <div className={classes.stack}>
      <div
        ref={plot}
        className={classes.plot}
        style={{ gridTemplateRows: lanes.map((lane) => `minmax(0, ${laneShare(lane)}fr)`).join(' ') }}
        data-zoomed={view.zoom !== undefined || undefined}
        onPointerDown={zoom.onPointerDown}
        onPointerMove={(event) => {
          setHoverRpm(rpmAt(event.clientX));
          zoom.onPointerMove(event);
        }}
        onPointerUp={zoom.onPointerUp}
        onPointerLeave={(event) => {
          setHoverRpm(undefined);
          zoom.onPointerUp(event);
        }}
        onClick={(event) => {
          if (!zoom.wasDrag()) change({ at: rpmAt(event.clientX) ?? view.atRpm });
        }}
      >
        {lanes.map((lane) => {
          switch (lane) {
            case 'power':
              return <PowerLane key={lane} {...common} figures={figures} />;
            case 'torque':
              return <TorqueLane key={lane} {...common} figures={figures} />;
            case 'gain':
              return <GainLane key={lane} {...common} figures={figures} />;
            default:
              return <ChannelLane key={lane} channel={lane} sides={sides} {...common} />;
          }
        })}
        {share !== undefined && share >= 0 && share <= 1 && (
          <div
            className={classes.crosshair}
            data-locked={view.atRpm !== undefined || undefined}
            style={{ left: `calc(${axisWidth}px + (100% - ${axisWidth + gutterWidth}px) * ${share})` }}
          />
        )}
      </div>
      <div style={{ paddingRight: gutterWidth }}>
        <SpeedAxis
          range={range}
          atRpm={share !== undefined && share >= 0 && share <= 1 ? atRpm : undefined}
          band={view.band}
          bandName={bandName}
          onBand={(band) => change({ band: band?.join('-') })}
        />
      </div>
      {view.zoom && (
        <button className={classes.whole} onClick={() => change({ zoom: undefined })}>
          whole range <kbd>0</kbd>
        </button>
      )}
    </div>
  );
}

/** The speeds asked for, as far as there are any. */
function within(
  zoom: readonly [number, number] | undefined,
  whole: readonly [number, number],
): readonly [number, number] {
  if (!zoom) return whole;
  const [from, to] = [Math.max(whole[0], zoom[0]), Math.min(whole[1], zoom[1])];
  return to - from >= 100 ? [from, to] : whole;
}
