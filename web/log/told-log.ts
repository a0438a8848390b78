import { channelLabel, asAirFuelRatio, keptUnit } from '../../core/recording/channels.ts';
import type { LoggedChannel } from '../../core/log/view/log-view.ts';
import type { LogMean } from '../../core/log/view/mean-log.ts';
import type { LogSeries } from '../../core/log/pull/series.ts';
import { toldIn, type Told, type Units } from '../../core/units/told-units.ts';

/**
 * A run's log in somebody's units: what lanes and tables read. What is judged of it rests on the log as it is kept.
 * @param stoichiometric ratio of what the run burnt
 */
export function toldLog(log: LogMean, units: Units, stoichiometric: number): LogMean {
  return { ...log, channels: log.channels.map((channel) => toldChannel(channel, units, stoichiometric)) };
}

function toldChannel(channel: LoggedChannel, units: Units, stoichiometric: number): LoggedChannel {
  const kept = keptUnit(channel.name, channel.unit);
  const told = toldIn(kept, units, stoichiometric);
  if (told.unit === channel.unit || told.unit === '') return { ...channel, unit: told.unit };
  const { speed, road, time, least, most } = channel;
  return {
    ...channel,
    unit: told.unit,
    speed: toldSeries(speed, told),
    ...(road && { road: toldSeries(road, told) }),
    time: toldSeries(time, told),
    least: told.of(least),
    most: told.of(most),
  };
}

const toldSeries = ({ x, values }: LogSeries, { of }: Told): LogSeries => ({ x, values: values.map(of) });

/** How a person reads a channel's name, a mixture by what it is told in. */
export function toldLabel(name: string, { mixture }: Units): string {
  const label = channelLabel(name);
  return mixture === 'AFR' ? asAirFuelRatio(label) : label;
}
