import { axisStep } from './axis-step.ts';
import { axisWidth } from './lane.tsx';
import classes from './speed-axis.module.css';

interface PlainAxisProps {
  range: readonly [number, number];
  unit: string;
  /** Where the crosshair stands, and what it says. */
  at?: { place: number; text: string } | undefined;
  bands?: readonly { from: number; to: number }[];
}

/** An axis under the lanes that only shows: time, road speed. */
export function PlainAxis({ range, unit, at, bands = [] }: PlainAxisProps) {
  const step = axisStep(range);
  const share = (place: number) => `${((place - range[0]) / (range[1] - range[0])) * 100}%`;
  const ticks: number[] = [];
  for (let place = Math.ceil(range[0] / step) * step; place <= range[1] + 1e-9; place += step) ticks.push(place);
  return (
    <div className={bands.length > 0 ? classes.axis : classes.low} style={{ paddingLeft: axisWidth }}>
      <div className={classes.strip}>
        {ticks.map((place) => (
          <span
            key={place}
            className={classes.tick}
            style={{ left: share(place) }}
            data-hidden={(at && Math.abs(place - at.place) < (range[1] - range[0]) * 0.07) || undefined}
          >
            {Number(place.toFixed(6))}
            {place === ticks.at(-1) && <i> {unit}</i>}
          </span>
        ))}
        {bands.map(({ from, to }) => (
          <span key={from} className={classes.band} style={{ left: share(from), right: `calc(100% - ${share(to)})` }} />
        ))}
        {at && (
          <span className={classes.crosshair} style={{ left: share(at.place) }}>
            {at.text}
          </span>
        )}
      </div>
    </div>
  );
}
