import type { RunLog } from './run-log.ts';

/**
 * A quantity that is judged in a log: a channel, engine speed, or one that is made of channels
 * (`fuelTrim`: what both trims add or take together, %, either way). Undefined where it was not logged.
 */
export function channelOf(
  { channels, engineSpeedRpm }: Pick<RunLog, 'channels' | 'engineSpeedRpm'>,
  name: string,
): Float64Array | undefined {
  if (name === 'engineSpeed') return engineSpeedRpm;
  if (name !== 'fuelTrim') return channels.get(name);
  const [long, short] = [channels.get('fuelTrimLong'), channels.get('fuelTrimShort')];
  const trim = long ?? short;
  return trim?.map((_, index) => Math.abs((long?.[index] ?? 0) + (short?.[index] ?? 0)));
}
