import { useHotkeys, type HotkeyItem } from '@mantine/hooks';
import { notifications } from '@mantine/notifications';
import { useMemo, useRef, useState } from 'react';
import type { Job } from '../../../../contract/records.ts';
import { axisWidth } from '../../../charts/lane.tsx';
import { PlainAxis } from '../../../charts/plain-axis.tsx';
import { SpeedAxis } from '../../../charts/speed-axis.tsx';
import { zoomedRanges } from '../scene/compare-scene.ts';
import { readingsText } from '../scene/readings.ts';
import { framed, type SceneContent } from '../scene/scene.ts';
import { axisText, axisWords } from '../view/lane-axis.ts';
import { laneShare } from '../view/lane-list.ts';
import type { ChangeView } from '../view/view.ts';
import type { CompareView } from '../view/view-address.ts';
import classes from './compare-lanes.module.css';
import { SceneLaneRow } from './scene-lane.tsx';
import { useZoom } from './use-zoom.ts';

interface CompareLanesProps {
  scene: SceneContent;
  /** Bands that have names. */
  bands: Job['bands'];
  view: CompareView;
  change: ChangeView;
  /** Shown large: the arrow keys belong to the steps. */
  presenting?: boolean;
}

const gutterWidth = 108;

/** The scene over one axis, under one crosshair. */
export function CompareLanes({ scene: content, bands, view, change, presenting = false }: CompareLanesProps) {
  const plot = useRef<HTMLDivElement>(null);
  const [hoverRpm, setHoverRpm] = useState<number>();
  const { place, whole, wholeRpm } = content;
  const { range, rangeRpm } = useMemo(() => zoomedRanges(content, view.zoom), [content, view.zoom]);
  const scene = useMemo(() => framed(content, range), [content, range]);
  // A crosshair that was set stays where it is; the pointer only shows one while there is none.
  const atRpm = view.atRpm ?? hoverRpm;
  const zoom = useZoom({
    plot,
    whole,
    range,
    inset: { left: axisWidth, right: gutterWidth },
    onZoom: (to) => change({ zoom: to && to.map((x) => Math.round(place.rpm(x) / 10) * 10).join('-') }),
  });
  const rpmAt = (clientX: number) => {
    const box = plot.current?.getBoundingClientRect();
    if (!box) return undefined;
    const share = (clientX - box.left - axisWidth) / (box.width - axisWidth - gutterWidth);
    if (share < 0 || share > 1) return undefined;
    return Math.round(place.rpm(range[0] + share * (range[1] - range[0])) / 10) * 10;
  };
  const middle = Math.round((rangeRpm[0] + rangeRpm[1]) / 200) * 100;
  const step = (rpm: number) => () =>
    change((at) => ({ at: Math.min(wholeRpm[1], Math.max(wholeRpm[0], (at ?? hoverRpm ?? middle) + rpm)) }));
  const copy = () => {
    if (atRpm === undefined) return;
    const words = `${atRpm.toLocaleString('en-GB')} rpm`;
    void navigator.clipboard.writeText(readingsText(scene, atRpm, place.x(atRpm))).then(
      () =>
        notifications.show({
          message: `The readings at ${words} are copied.`,
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
    // A plus sign as a key is written out: the sign by itself joins keys.
    ['[plus]', () => zoom.zoomAt(0.5, 0.7)],
    ['shift+[plus]', () => zoom.zoomAt(0.5, 0.7)],
    ['-', () => zoom.zoomAt(0.5, 1.4)],
    ['0', () => change({ zoom: undefined })],
  ]);
  const at = atRpm === undefined ? undefined : place.x(atRpm);
  const { band } = view;
  const bandName = band && bands.find(({ fromRpm, toRpm }) => fromRpm === band[0] && toRpm === band[1])?.name;
  const share = at === undefined ? undefined : (at - range[0]) / (range[1] - range[0]);
  const crosshair = share !== undefined && share >= 0 && share <= 1 ? atRpm : undefined;
  return (
    <div className={classes.stack}>
      <div
        ref={plot}
        className={classes.plot}
        style={{ gridTemplateRows: scene.lanes.map(({ id }) => `minmax(0, ${laneShare(id)}fr)`).join(' ') }}
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
        {scene.lanes.map((lane) => (
          <SceneLaneRow key={lane.id} lane={lane} range={range} at={at} />
        ))}
        {crosshair !== undefined && (
          <div
            className={classes.crosshair}
            data-locked={view.atRpm !== undefined || undefined}
            style={{ left: `calc(${axisWidth}px + (100% - ${axisWidth + gutterWidth}px) * ${share ?? 0})` }}
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
            at={crosshair === undefined || at === undefined ? undefined : { place: at, text: axisText(view.axis, at) }}
            band={content.band && [content.band.from, content.band.to]}
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
