import type { Told } from '../../core/units/told-units.ts';
import { ticksOf } from '../../core/scene/axis-step.ts';
import { axisText } from '../../core/scene/lane-axis.ts';
import { axisWidth } from './lane.tsx';
import classes from './speed-axis.module.css';

interface PlainAxisProps {
  range: readonly [number, number];
  /** How places on it are told. */
  told: Told;
  /** Where the crosshair stands. */
  at?: number | undefined;
  bands?: readonly { from: number; to: number }[];
}

/** An axis under the lanes that only shows: time, road speed. */
export function PlainAxis({ range, told, at, bands = [] }: PlainAxisProps) {
  const share = (place: number) => `${((place - range[0]) / (range[1] - range[0])) * 100}%`;
  // A band may go on beyond what is drawn.
  const within = (place: number) => Math.min(range[1], Math.max(range[0], place));
  const ticks = ticksOf(range, told);
  return (
    <div className={bands.length > 0 ? classes.axis : classes.low} style={{ paddingLeft: axisWidth }}>
      <div className={classes.strip}>
        {ticks.map(({ place, figure }) => (
          <span
            key={place}
            className={classes.tick}
            style={{ left: share(place) }}
            data-hidden={(at !== undefined && Math.abs(place - at) < (range[1] - range[0]) * 0.07) || undefined}
          >
            {figure}
            {place === ticks.at(-1)?.place && <i> {told.unit}</i>}
          </span>
        ))}
        {bands.map(({ from, to }) => (
          <span
            key={from}
            className={classes.band}
            style={{ left: share(within(from)), right: `calc(100% - ${share(within(to))})` }}
          />
        ))}
        {at !== undefined && (
          <span className={classes.crosshair} style={{ left: share(at) }}>
            {axisText(at, told)}
          </span>
        )}
      </div>
    </div>
  );
}
