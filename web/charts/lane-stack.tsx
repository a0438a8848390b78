import { useKeys } from '../keys/use-keys.ts';
import { useHotkeys, type HotkeyItem } from '@mantine/hooks';
import { notifications } from '@mantine/notifications';
import { useRef, useState, type ReactNode } from 'react';
import { axisWidth } from './lane.tsx';
import classes from './lane-stack.module.css';
import { SceneLaneRow } from './scene-lane.tsx';
import type { AxisRange, EmptyLane, SceneLane } from '../../core/scene/scene.ts';
import { useZoom } from './use-zoom.ts';

/** Room for the values at the crosshair, px. */
export const gutterWidth = 108;

interface LaneStackProps {
  lanes: readonly (SceneLane | EmptyLane)[];
  /** How tall a lane stands beside the others. */
  shareOf?: (lane: string) => number;
  /** Both on the lanes' axis. */
  whole: AxisRange;
  range: AxisRange;
  /** Where the crosshair was set, on the axis; undefined while nobody has. */
  at: number | undefined;
  /** Where the crosshair rests until somebody sets it or the pointer moves it. */
  rest?: number | undefined;
  /** The place of a pointer as the crosshair takes it. */
  snapped: (x: number) => number;
  onAt: (x: number | undefined) => void;
  /** Called by an arrow key: so many steps from where the crosshair is set, or from `from` where it is not. */
  onStep: (steps: number, from: number) => void;
  /** Undefined for the whole. */
  onZoom: (range: AxisRange | undefined) => void;
  /** What C copies of a place, and how the place is called. */
  copied: (x: number) => { words: string; text: string };
  /** The axis under the lanes, with the crosshair where it is within the range. */
  axis: (crosshair: number | undefined) => ReactNode;
  /** True while the arrow keys are used for something else. */
  arrowsTaken?: boolean;
}

/** Lanes over one axis, under one crosshair, with zoom and keys. */
export function LaneStack({ lanes, shareOf = () => 1, whole, range, at: set, rest, ...on }: LaneStackProps) {
  const plot = useRef<HTMLDivElement>(null);
  const [hover, setHover] = useState<number>();
  const [focused, setFocused] = useState(false);
  // A crosshair that was set stays. The pointer moves it only while none is set.
  const at = set ?? hover ?? rest;
  const zoom = useZoom({ plot, whole, range, inset: { left: axisWidth, right: gutterWidth }, onZoom: on.onZoom });
  const placeAt = (clientX: number) => {
    const box = plot.current?.getBoundingClientRect();
    if (!box) return undefined;
    const share = (clientX - box.left - axisWidth) / (box.width - axisWidth - gutterWidth);
    return share < 0 || share > 1 ? undefined : on.snapped(range[0] + share * (range[1] - range[0]));
  };
  const step = (steps: number) => () => on.onStep(steps, hover ?? rest ?? (range[0] + range[1]) / 2);
  const copy = () => {
    if (at === undefined) return;
    const { words, text } = on.copied(at);
    void navigator.clipboard.writeText(text).then(
      () => notifications.show({ message: `The readings at ${words} are copied.`, autoClose: 2500 }),
      () => notifications.show({ message: 'The browser does not let the readings be copied.', color: 'red' }),
    );
  };
  useHotkeys([
    ...(on.arrowsTaken
      ? []
      : ([
          ['ArrowRight', step(1)],
          ['ArrowLeft', step(-1)],
          ['shift+ArrowRight', step(10)],
          ['shift+ArrowLeft', step(-10)],
          ['Escape', () => on.onAt(undefined)],
        ] as HotkeyItem[])),
    ['c', copy],
    // A plus sign as a key is written out: the sign by itself joins keys.
    ['[plus]', () => zoom.zoomAt(0.5, 0.7)],
    ['shift+[plus]', () => zoom.zoomAt(0.5, 0.7)],
    ['-', () => zoom.zoomAt(0.5, 1.4)],
    ['0', () => on.onZoom(undefined)],
  ]);
  useKeys([
    ...(on.arrowsTaken
      ? []
      : [
          { shown: '← →', says: 'Move the crosshair; with Shift ten steps' },
          { shown: 'Esc', says: 'Take the crosshair off' },
        ]),
    { shown: 'C', says: 'Copy the readings at the crosshair' },
    { shown: '+ −', says: 'Zoom in and out' },
    { shown: '0', says: 'Show the whole range' },
  ]);
  const share = at === undefined ? undefined : (at - range[0]) / (range[1] - range[0]);
  const crosshair = share !== undefined && share >= 0 && share <= 1 ? at : undefined;
  const zoomed = range[0] !== whole[0] || range[1] !== whole[1];
  return (
    <div className={classes.stack}>
      <output className="seen-by-readers">{focused && set !== undefined ? on.copied(set).text : ''}</output>
      <div
        ref={plot}
        className={classes.plot}
        // With the keyboard on it, what the crosshair reads is told as it moves.
        role="group"
        aria-label="Lanes: arrow keys move the crosshair, C copies its readings"
        tabIndex={0}
        onFocus={() => setFocused(true)}
        onBlur={() => setFocused(false)}
        style={{ gridTemplateRows: lanes.map(({ id }) => `minmax(0, ${shareOf(id)}fr)`).join(' ') }}
        data-zoomed={zoomed || undefined}
        onPointerDown={zoom.onPointerDown}
        onPointerMove={(event) => {
          setHover(placeAt(event.clientX));
          zoom.onPointerMove(event);
        }}
        onPointerUp={zoom.onPointerUp}
        onPointerLeave={(event) => {
          setHover(undefined);
          zoom.onPointerLeave(event);
        }}
        onClick={(event) => {
          if (!zoom.wasDrag()) on.onAt(placeAt(event.clientX) ?? set);
        }}
      >
        {lanes.map((lane) => (
          <SceneLaneRow key={lane.id} lane={lane} range={range} at={at} />
        ))}
        {zoom.selected && (
          <div
            className={classes.selected}
            style={{ left: acrossLanes(zoom.selected[0]), right: `calc(100% - ${acrossLanes(zoom.selected[1])})` }}
          />
        )}
        {crosshair !== undefined && (
          <div
            className={classes.crosshair}
            data-locked={set !== undefined || undefined}
            style={{ left: acrossLanes(share ?? 0) }}
          />
        )}
      </div>
      <div style={{ paddingRight: gutterWidth }}>{on.axis(crosshair)}</div>
    </div>
  );
}

/** A share of the lanes' width as a place in the plot. */
const acrossLanes = (share: number) => `calc(${axisWidth}px + (100% - ${axisWidth + gutterWidth}px) * ${share})`;
