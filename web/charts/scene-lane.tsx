import { memo } from 'react';
import { Gutter } from './gutter.tsx';
import { LaneMarks } from './lane-marks.tsx';
import { Lane } from './lane.tsx';
import { namesAtEnds, readingsAt } from '../../core/scene/readings.ts';
import { isEmpty, type AxisRange, type EmptyLane, type SceneLane } from '../../core/scene/scene.ts';
import classes from './lane-stack.module.css';

/** A lane of the scene on the screen: its chart, its marks, and its readings in the gutter. */
export function SceneLaneRow({
  lane,
  range,
  at,
}: {
  lane: SceneLane | EmptyLane;
  range: AxisRange;
  at: number | undefined;
}) {
  if (isEmpty(lane)) return <p className={classes.empty}>{lane.why}</p>;
  return (
    <div className={classes.row}>
      <Chart lane={lane} range={range} />
      <Gutter range={lane.values} values={at === undefined ? namesAtEnds(lane, range) : readingsAt(lane, at)} />
    </div>
  );
}

/** Does not change while only the crosshair moves. */
const Chart = memo(function Chart({ lane, range }: { lane: SceneLane; range: AxisRange }) {
  return (
    <>
      <Lane
        name={lane.name}
        unit={lane.unit}
        lines={lane.lines}
        range={range}
        values={lane.values}
        decoration={lane.decoration}
        text={lane.text}
      />
      {lane.marks.length > 0 && <LaneMarks marks={lane.marks} range={range} values={lane.values} />}
    </>
  );
});
