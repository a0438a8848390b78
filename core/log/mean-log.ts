import { interpolate } from '../numerics/interpolation.ts';
import { meanOf } from '../numerics/mean.ts';
import type { LoggedChannel, LogView } from './log-view.ts';
import { noSeries, type LogSeries } from './series.ts';

/**
 * What several runs' logs show on average: each channel that all of them
 * logged, where all of them did; over time each counts from its own opening.
 * Its extremes are those of all runs together.
 *
 * @param views of runs of one setup; at least one
 */
export function meanLog(views: readonly LogView[]): Pick<LogView, 'startS' | 'endS' | 'channels'> {
  const [first] = views;
  if (!first || views.length === 1) return first ?? { startS: 0, endS: 0, channels: [] };
  const endS = Math.min(...views.map((view) => view.endS - view.startS));
  return {
    startS: 0,
    endS,
    channels: first.channels.flatMap((channel) => {
      const all = views.flatMap((view) => view.channels.find(({ name }) => name === channel.name) ?? []);
      return all.length < views.length ? [] : [meanChannel(channel, all, views)];
    }),
  };
}

function meanChannel(first: LoggedChannel, all: readonly LoggedChannel[], views: readonly LogView[]): LoggedChannel {
  const road = all.map((channel) => channel.road ?? noSeries);
  return {
    name: first.name,
    unit: first.unit,
    speed: meanSeries(all.map(({ speed }) => speed)),
    ...(first.road && { road: meanSeries(road) }),
    time: meanSeries(all.map(({ time }, at) => ({ x: time.x.map((x) => x - views[at]!.startS), values: time.values }))),
    least: Math.min(...all.map(({ least }) => least)),
    most: Math.max(...all.map(({ most }) => most)),
  };
}

/** At the first one's places, as far as all reach. */
function meanSeries(series: readonly LogSeries[]): LogSeries {
  if (series.some(({ x }) => x.length < 2)) return noSeries;
  const from = Math.max(...series.map(({ x }) => x[0]!));
  const to = Math.min(...series.map(({ x }) => x[x.length - 1]!));
  const x = series[0]!.x.filter((place) => place >= from && place <= to);
  return { x, values: x.map((place) => meanOf(series.map((one) => interpolate(one.x, one.values, place)))) };
}
