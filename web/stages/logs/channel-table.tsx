import { line } from 'd3-shape';
import { interpolate } from '../../../core/numerics/interpolation.ts';
import type { LoggedChannel } from '../../../core/log/view/log-view.ts';
import type { LogSeries } from '../../../core/log/pull/series.ts';
import type { LaneAxisId } from '../../../core/scene/lane-axis.ts';
import { signed } from '../../../core/wording/figures.ts';
import { figureIn } from '../../../core/units/told-units.ts';
import { toldLabel } from '../../log/told-log.ts';
import { useUnits } from '../../units/use-own-units.tsx';
import classes from './channel-table.module.css';
import { seriesOver } from './lanes/log-scene.ts';
import type { LogSide } from './view/log-side.ts';
import { PinButton } from './pin-button.tsx';

interface ChannelTableProps {
  main: LogSide;
  /** What differences are taken from. */
  against: LogSide | undefined;
  /** The channels, in the order in which they are listed. */
  channels: readonly LoggedChannel[];
  /** Where readings are taken: the power peak or the crosshair, on the axis; in words too. */
  at: { x: number; words: string } | undefined;
  axis: LaneAxisId;
  /** Channels that differ by more than their own spread explains. */
  far: ReadonlySet<string>;
  pinned: readonly string[];
  onOpen: (channel: string) => void;
  onPin: (channel: string) => void;
}

/** Every other channel in a line: its course, least and greatest, a reading, and how far that is from the other's. */
export function ChannelTable({ main, against, channels, at, axis, far, ...props }: ChannelTableProps) {
  const units = useUnits();
  if (channels.length === 0) return null;
  return (
    <section className={classes.table} aria-label="All other channels">
      <p className={classes.head}>
        Everything else of {main.label}: least … greatest{at && `, reading ${at.words}`}
        {at && against && `, difference from ${against.label}`}
      </p>
      <ul className={classes.rows}>
        {channels.map((channel) => {
          const series = seriesOver(channel, axis, main.log.startS);
          const other = against?.log.channels.find(({ name }) => name === channel.name);
          const read = at && readingAt(series, at.x);
          const beside = at && against && other && readingAt(seriesOver(other, axis, against.log.startS), at.x);
          const label = toldLabel(channel.name, units);
          return (
            <li key={channel.name} className={classes.row}>
              <button
                className={classes.open}
                title={`Open ${label} as a lane`}
                onClick={() => props.onOpen(channel.name)}
              >
                <span className={classes.name} title={label}>
                  {label}
                </span>
                <Spark series={series} colour={main.colour} />
                <span className={classes.reach}>
                  {figureIn(channel.least, channel.unit)} … {figureIn(channel.most, channel.unit)}
                </span>
                <b className="number">
                  {read === undefined ? '' : figureIn(read, channel.unit)}
                  <small> {channel.unit}</small>
                </b>
                <span className={classes.difference} data-far={far.has(channel.name) || undefined}>
                  {read === undefined || beside === undefined ? '' : signed(figureIn(read - beside, channel.unit))}
                </span>
              </button>
              <PinButton
                label={label}
                pinned={props.pinned.includes(channel.name)}
                onPress={() => props.onPin(channel.name)}
              />
            </li>
          );
        })}
      </ul>
    </section>
  );
}

function readingAt({ x, values }: LogSeries, at: number): number | undefined {
  if (x.length < 2 || at < x[0]! || at > x[x.length - 1]!) return undefined;
  return interpolate(x, values, at);
}

const [width, height] = [34, 18];
/** A spark shows no more points than it has pixels. */
const mostPoints = 34;

/** A channel's course, without a scale. */
function Spark({ series: { x, values }, colour }: { series: LogSeries; colour: string }) {
  if (x.length < 2) return <svg width={width} height={height} aria-hidden />;
  let [least, most] = [Infinity, -Infinity];
  for (const value of values) [least, most] = [Math.min(least, value), Math.max(most, value)];
  // What stands still is drawn in the middle, and its noise not blown up.
  const span = Math.max(most - least, 0.02 * Math.abs(most), 1e-9);
  const middle = (least + most) / 2;
  const every = Math.max(1, Math.floor(x.length / mostPoints));
  const points = Array.from({ length: Math.ceil(x.length / every) }, (_, index) => index * every);
  const path = line<number>(
    (index) => ((x[index]! - x[0]!) / (x[x.length - 1]! - x[0]!)) * width,
    (index) => height / 2 - ((values[index]! - middle) / span) * (height - 4),
  )(points);
  return (
    <svg width={width} height={height} aria-hidden>
      <path d={path ?? ''} fill="none" stroke={colour} strokeWidth="1.3" />
    </svg>
  );
}
