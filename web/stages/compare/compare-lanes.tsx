import { useHotkeys, type HotkeyItem } from '@mantine/hooks';
import { notifications } from '@mantine/notifications';
import { useMemo, useRef, useState } from 'react';
import type { Job } from '../../../contract/records.ts';
import type { JobFigures } from '../../../core/gain/job-figures.ts';
import { axisWidth } from '../../charts/lane.tsx';
import { PlainAxis } from '../../charts/plain-axis.tsx';
import { SpeedAxis } from '../../charts/speed-axis.tsx';
import classes from './compare-lanes.module.css';
import { ChannelLane } from './channel-lane.tsx';
import { GainLane } from './gain-lane.tsx';
import { figureLanes, laneShare } from './lane-list.ts';
import { useLoggedSides } from './use-logged-sides.ts';
import { PowerLane, TorqueLane } from './mean-lanes.tsx';
import { readingsAt } from './readings.ts';
import { axisText, axisWords } from './lane-axis.ts';
import { shownSetups, speedRange, type Shown } from './shown-setups.ts';
import { useZoom } from './use-zoom.ts';
import type { ChangeView, CompareView } from './view.ts';

interface CompareLanesProps {
  job: Job;
  /** Another job that a setup is laid beside from. */
  guest?: Job | undefined;
  figures: JobFigures;
  view: CompareView;
  change: ChangeView;
  /** Shown large: the arrow keys belong to the steps. */
  presenting?: boolean;
}

const gutterWidth = 108;

/** Power, torque, gain and whatever was logged over one axis, under one crosshair. */
export function CompareLanes({ job, guest, figures, view, change, presenting = false }: CompareLanesProps) {
  const plot = useRef<HTMLDivElement>(null);
  const [hoverRpm, setHoverRpm] = useState<number>();
  // Kept while the pointer moves, so that the lanes are not drawn anew under it.
  const drawn = useDrawn(view);
  const shown = useMemo(() => shownSetups(job, figures, drawn), [job, figures, drawn]);
  const wholeRpm = useMemo(() => speedRange(shown.map(({ figures: one }) => one.power.engineSpeedRpm)), [shown]);
  const rangeRpm = useMemo(() => within(view.zoom, wholeRpm), [view.zoom, wholeRpm]);
  const whole = useMemo(() => onAxis(wholeRpm, shown, view), [wholeRpm, shown, view]);
  const range = useMemo(() => (rangeRpm === wholeRpm ? whole : zoomOnAxis(rangeRpm, shown)), [rangeRpm, wholeRpm, whole, shown]); // prettier-ignore
  // A crosshair that was set stays where it is; the pointer only shows one while there is none.
  const atRpm = view.atRpm ?? hoverRpm;
  const place = shown.at(-1)?.place;
  const zoom = useZoom({
    plot,
    whole,
    range,
    inset: { left: axisWidth, right: gutterWidth },
    onZoom: (to) => change({ zoom: to && to.map((x) => Math.round(place!.rpm(x) / 10) * 10).join('-') }),
  });
  const rpmAt = (clientX: number) => {
    const box = plot.current!.getBoundingClientRect();
    const share = (clientX - box.left - axisWidth) / (box.width - axisWidth - gutterWidth);
    if (share < 0 || share > 1) return undefined;
    return Math.round(place!.rpm(range[0] + share * (range[1] - range[0])) / 10) * 10;
  };
  const middle = Math.round((rangeRpm[0] + rangeRpm[1]) / 200) * 100;
  const step = (rpm: number) => () =>
    change((at) => ({ at: Math.min(wholeRpm[1], Math.max(wholeRpm[0], (at ?? hoverRpm ?? middle) + rpm)) }));
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
  const sides = useLoggedSides(job, guest, view, shown);
  if (shown.length === 0) return null;
  const at = atRpm === undefined ? undefined : place!.x(atRpm);
  const common = { range, at, view: drawn, shown };
  const bandName =
    view.band && job.bands.find((one) => one.fromRpm === view.band![0] && one.toRpm === view.band![1])?.name;
  const share = at === undefined ? undefined : (at - range[0]) / (range[1] - range[0]);
  const crosshair = share !== undefined && share >= 0 && share <= 1 ? atRpm : undefined;
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
        {crosshair !== undefined && (
          <div
            className={classes.crosshair}
            data-locked={view.atRpm !== undefined || undefined}
            style={{ left: `calc(${axisWidth}px + (100% - ${axisWidth + gutterWidth}px) * ${share!})` }}
          />
        )}
      </div>
      <div style={{ paddingRight: gutterWidth }}>
        {view.axis === 'engine-speed' ? (
          <SpeedAxis
            range={range}
            atRpm={crosshair}
            band={view.band}
            bandName={bandName}
            onBand={(band) => change({ band: band?.join('-') })}
          />
        ) : (
          <PlainAxis
            range={range}
            unit={axisWords[view.axis].unit}
            at={crosshair === undefined ? undefined : { place: at!, text: axisText(view.axis, at!) }}
            band={view.band && [place!.x(view.band[0]), place!.x(view.band[1])]}
          />
        )}
      </div>
      {presenting && view.zoom && (
        <button className={classes.whole} onClick={() => change({ zoom: undefined })}>
          whole range <kbd>0</kbd>
        </button>
      )}
    </div>
  );
}

/** A view that stays the same while only the crosshair moves or another range is looked at. */
function useDrawn(view: CompareView): CompareView {
  const [drawn, setDrawn] = useState(view);
  const lines = (one: CompareView) => JSON.stringify({ ...one, zoom: undefined, atRpm: undefined });
  if (drawn === view || lines(drawn) === lines(view)) return drawn;
  setDrawn(view);
  return view;
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

/** A range of engine speeds on the lanes' axis, as far as any of the lines goes. */
function onAxis(
  rpm: readonly [number, number],
  shown: readonly Shown[],
  { axis }: CompareView,
): readonly [number, number] {
  if (axis === 'engine-speed' || shown.length === 0) return rpm;
  const ends = shown.map(({ place }) => [place.x(rpm[0]), place.x(rpm[1])] as const);
  const least = axis === 'time' ? 0 : Math.min(...ends.map(([from]) => from));
  const most = Math.max(...ends.map(([, to]) => to));
  const margin = 0.03 * (most - least);
  return [axis === 'time' ? 0 : least - margin, most + margin];
}

function zoomOnAxis(rpm: readonly [number, number], shown: readonly Shown[]): readonly [number, number] {
  const place = shown.at(-1)?.place;
  return place ? [place.x(rpm[0]), place.x(rpm[1])] : rpm;
}
