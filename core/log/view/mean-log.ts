import { sampleAt } from '../../numerics/sample-at.ts';
import { interpolate } from '../../numerics/interpolation.ts';
import { meanOf } from '../../numerics/mean.ts';
import { meanBoost } from './boost-figures.ts';
import type { LoggedChannel, LogView } from './log-view.ts';
import { noSeries, type LogSeries } from '../pull/series.ts';

/** As much of a log as a mean has. */
export type LogMean = Pick<LogView, 'startS' | 'endS' | 'channels' | 'boost'>;

/**
 * What several runs' logs show on average: each channel over the runs that
 * logged it, where all of these did; over time each counts from its own
 * opening. Its extremes are those of all runs together.
 *
 * @param views of runs of one setup
 */
export function meanLog(views: readonly LogView[]): LogMean {
  const [first] = views;
  if (!first || views.length === 1) return first ?? { startS: 0, endS: 0, channels: [] };
  const names = [...new Set(views.flatMap(({ channels }) => channels.map(({ name }) => name)))];
  return {
    startS: 0,
    endS: Math.min(...views.map((view) => view.endS - view.startS)),
    boost: meanBoost(views.flatMap(({ boost }) => boost ?? [])),
    channels: names.flatMap((name) =>
      meanChannel(
        views.flatMap(({ channels, startS }) =>
          channels.filter((channel) => channel.name === name).map((channel) => fromOpening(channel, startS)),
        ),
      ),
    ),
  };
}

function fromOpening({ time, ...channel }: LoggedChannel, startS: number): LoggedChannel {
  return { ...channel, time: { x: time.x.map((x) => x - startS), values: time.values } };
}

function meanChannel(all: readonly LoggedChannel[]): LoggedChannel[] {
  const [first] = all;
  if (!first) return [];
  return [
    {
      name: first.name,
      unit: first.unit,
      speed: meanSeries(all.map(({ speed }) => speed)),
      ...(first.road && { road: meanSeries(all.map(({ road }) => road ?? noSeries)) }),
      time: meanSeries(all.map(({ time }) => time)),
      least: Math.min(...all.map(({ least }) => least)),
      most: Math.max(...all.map(({ most }) => most)),
    },
  ];
}

/** At the first one's places, as far as all reach. */
function meanSeries(series: readonly LogSeries[]): LogSeries {
  if (series.some(({ x }) => x.length < 2)) return noSeries;
  const from = Math.max(...series.map(({ x }) => sampleAt(x, 0)));
  const to = Math.min(...series.map(({ x }) => sampleAt(x, x.length - 1)));
  const x = series[0]!.x.filter((place) => place >= from && place <= to);
  return { x, values: x.map((place) => meanOf(series.map((one) => interpolate(one.x, one.values, place)))) };
}
