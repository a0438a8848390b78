import type { LaneMark } from '../../core/scene/lane.ts';
import { Tooltip } from '@mantine/core';
import { useElementSize } from '@mantine/hooks';
import { axisWidth, heightOf } from './lane.tsx';
import classes from './lane.module.css';
import type { ValueRange } from '../../core/scene/nice-range.ts';

/** Over a lane's canvas: each mark can be pointed at or come to with Tab, and says why it is there. */
export function LaneMarks({
  marks,
  range,
  values,
}: {
  marks: readonly LaneMark[];
  range: readonly [number, number];
  values: ValueRange;
}) {
  const { ref, height } = useElementSize();
  const shown = marks.filter(({ x }) => x >= range[0] && x <= range[1]);
  return (
    <div ref={ref} className={classes.marks} style={{ left: axisWidth }}>
      {height > 0 &&
        shown.map(({ x, value, why }) => (
          <Tooltip
            key={`${x}-${value}-${why}`}
            label={why}
            multiline
            w={300}
            events={{ hover: true, focus: true, touch: true }}
          >
            <button
              className={classes.mark}
              aria-label={why}
              style={{
                left: `${((x - range[0]) / (range[1] - range[0])) * 100}%`,
                top: heightOf(value, values, height),
              }}
            />
          </Tooltip>
        ))}
    </div>
  );
}
