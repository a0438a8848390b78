import type { Air } from '../../air/air.ts';
import { valuesOf, type Recording } from '../../recording/recording.ts';

/** A recording with the run's air as constant columns, so that one CSV holds all that a figure needs but the dyno. */
export function withAirColumns(recording: Recording, air: Air | undefined): Recording {
  if (!air) return recording;
  const constant = (name: string, unit: string, value: number) => ({
    name,
    unit,
    values: new Float64Array(recording.time.length).fill(value),
  });
  const others = recording.channels.filter((channel) => !airChannels.includes(channel.name));
  return {
    time: recording.time,
    channels: [
      ...others,
      constant('airTemperature', '°C', air.temperatureC),
      constant('airPressure', 'hPa', air.pressureHpa),
      constant('relativeHumidity', '%', air.relativeHumidityPct),
    ],
  };
}

const airChannels = ['airTemperature', 'airPressure', 'relativeHumidity'];

/** The air at the start of a recording that carries it in columns, or undefined. */
export function airFromColumns(recording: Recording): Air | undefined {
  const [temperatureC, pressureHpa, relativeHumidityPct] = airChannels.map((name) =>
    valuesOf(recording, name)?.find((value) => !Number.isNaN(value)),
  );
  if (temperatureC === undefined || pressureHpa === undefined || relativeHumidityPct === undefined) return undefined;
  return { temperatureC, pressureHpa, relativeHumidityPct };
}
