import { axisWidth } from '../../charts/lane.tsx';
import classes from '../../charts/speed-axis.module.css';

/** Seconds since the throttle opened, under the lanes. */
export function TimeAxis({ range }: { range: readonly [number, number] }) {
  const step = range[1] - range[0] > 12 ? 2 : 1;
  const ticks: number[] = [];
  for (let at = Math.ceil(range[0] / step) * step; at <= range[1]; at += step) ticks.push(at);
  return (
    <div className={classes.axis} style={{ paddingLeft: axisWidth }}>
      <div className={classes.strip}>
        {ticks.map((at) => (
          <span
            key={at}
            className={classes.tick}
            style={{ left: `${((at - range[0]) / (range[1] - range[0])) * 100}%` }}
          >
            {at}
            {at === ticks.at(-1) && <i> s</i>}
          </span>
        ))}
      </div>
    </div>
  );
}
