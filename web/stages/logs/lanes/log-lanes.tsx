import { useMemo } from 'react';
import { useUnits } from '../../../units/use-own-units.tsx';
import { axisText, axisWords, toldAxis } from '../../../../core/scene/lane-axis.ts';
import { LaneStack } from '../../../charts/lane-stack.tsx';
import { PlainAxis } from '../../../charts/plain-axis.tsx';
import { readingsText } from '../../../../core/scene/readings.ts';
import { framed, type AxisRange, type EmptyLane, type LaneContent } from '../../../../core/scene/scene.ts';
import { SpeedAxis } from '../../../charts/speed-axis.tsx';
import type { LogsView } from '../view/log-address.ts';
import type { ChangeLogsView } from '../view/use-logs-view.ts';

interface LogLanesProps {
  lanes: readonly (LaneContent | EmptyLane)[];
  whole: AxisRange;
  view: LogsView;
  /** Where the crosshair rests: the power peak, on the axis. */
  rest: number | undefined;
  change: ChangeLogsView;
}

/** A crosshair moves by so much a press of an arrow key, in the axis' unit. */
const steps = { 'engine-speed': 10, 'road-speed': 0.5, time: 0.02 } as const;

/** A place of an axis as a crosshair takes it. */
export const stepped = (axis: LogsView['axis'], x: number): number => Math.round(x / steps[axis]) * steps[axis];

/** The opened lanes over one axis. */
export function LogLanes({ lanes, whole, view, rest, change }: LogLanesProps) {
  const { axis } = view;
  const range = useMemo(() => within(view.zoom, whole), [view.zoom, whole]);
  const units = useUnits();
  const told = useMemo(() => toldAxis(axis, units), [axis, units]);
  const scene = useMemo(() => framed({ axis, told, lanes, bands: [] }, range), [axis, told, lanes, range]);
  const step = steps[axis];
  const snapped = (x: number) => Math.min(whole[1], Math.max(whole[0], stepped(axis, x)));
  return (
    <LaneStack
      lanes={scene.lanes}
      whole={whole}
      range={range}
      at={view.at}
      rest={rest}
      snapped={snapped}
      onAt={(at) => change({ at })}
      onStep={(count, from) => change((now) => ({ at: snapped((now.at ?? from) + count * step) }))}
      onZoom={(zoom) => change({ zoom })}
      copied={(x) => ({
        words: axisText(x, told),
        text: readingsText(scene, told.of(x), x, `${axisWords[axis].name} [${told.unit}]`),
      })}
      axis={(crosshair) =>
        axis === 'engine-speed' ? (
          <SpeedAxis range={range} atRpm={crosshair} bands={[]} />
        ) : (
          <PlainAxis range={range} told={told} at={crosshair} />
        )
      }
    />
  );
}

/** A zoom as far as there is anything to look at. */
export function within(zoom: AxisRange | undefined, whole: AxisRange): AxisRange {
  if (!zoom) return whole;
  const [from, to] = [Math.max(zoom[0], whole[0]), Math.min(zoom[1], whole[1])];
  return to > from ? [from, to] : whole;
}
