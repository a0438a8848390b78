import { medianOf } from '../numerics/quantile.ts';
import { firstNotBelow } from '../numerics/interpolation.ts';
import type { Recording } from './recording.ts';

/** A start is the first so many seconds. */
const startS = 1;

/** Temperatures at the beginning of a recording, °C to a tenth, by channel: what its own channels read then. */
export function startTemperaturesOf({ time, channels }: Recording): Record<string, number> {
  const end = Math.max(1, firstNotBelow(time, (time[0] ?? 0) + startS));
  const found = channels.flatMap(({ name, unit, values }) => {
    if (unit !== '°C' || name === 'airTemperature') return [];
    const read = values.subarray(0, end).filter((value) => !Number.isNaN(value));
    return read.length === 0 ? [] : [[name, Math.round(10 * medianOf(read)) / 10] as const];
  });
  return Object.fromEntries(found);
}
