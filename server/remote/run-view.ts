import { channelLabel } from '../../core/recording/channels.ts';
import type { Recording } from '../../core/recording/recording.ts';
import type { PageView } from './remote-page.ts';

/** So many points of each channel are drawn; all of them are in the run's own file. */
const mostPoints = 900;
/** A page of more lanes is not read. */
const mostLanes = 24;

/** A run's channels over time, the dyno's first, then each logger's on its own clock. */
export function runView(name: string, recordings: readonly Recording[]): PageView {
  const lanes = recordings.flatMap(({ time, channels }) => {
    const step = Math.max(1, Math.ceil(time.length / mostPoints));
    const picked = (values: Float64Array) =>
      Array.from({ length: Math.ceil(values.length / step) }, (_, at) => values[at * step] ?? NaN);
    const x = picked(time).map((value) => Number(value.toPrecision(6)));
    return channels.map(({ name: channel, unit, values }) => ({
      title: channelLabel(channel),
      unit,
      lines: [
        {
          name: channelLabel(channel),
          x,
          y: picked(values).map((value) => (Number.isFinite(value) ? Number(value.toPrecision(5)) : null)),
        },
      ],
    }));
  });
  // What was never read is no lane.
  const drawn = lanes.filter(({ lines }) =>
    lines.some(({ x, y }) => x.length > 1 && y.some((value) => value !== null)),
  );
  const cut = drawn.length > mostLanes ? ` (${mostLanes} of ${drawn.length} channels)` : '';
  return { name: `${name}${cut}`, axis: 's', lanes: drawn.slice(0, mostLanes) };
}
