import type { Device } from '../devices/device.ts';
import type { LoggerTap } from './logger-tap.ts';

/** Temperatures at the beginning, from the dyno's channels and the loggers' where the dyno has none. */
export function startTemperatures(
  device: Device,
  row: Float64Array,
  loggers: readonly LoggerTap[],
  backS: number,
): Record<string, number> {
  const found = new Map<string, number>();
  const take = (channels: Device['intake']['channels'], values: Float64Array | undefined) =>
    channels.forEach(({ name, unit }, index) => {
      const value = values?.[index + 1] ?? NaN;
      if (unit === '°C' && !Number.isNaN(value) && !found.has(name)) found.set(name, Math.round(value * 10) / 10);
    });
  take(device.intake.channels, row);
  for (const tap of loggers) take(tap.device.intake.channels, tap.back(backS));
  return Object.fromEntries(found);
}
