import { sampleAt } from '../../numerics/sample-at.ts';
import { quantity, say } from '../../sentence/sentence.ts';
import { spokenRpm } from '../../units/spoken.ts';
import { judgedReading } from './extremes.ts';
import { eventAt, highestSoFar, stretches, type JudgedLog, type LogEvent } from '../pull/run-log.ts';

// Set by bench/logs.ts: no false alarm on healthy logs, most hits on faulty ones.
/** Below the line for so long it counts, s; breaks up to this long do not end it. */
const leastS = 0.2;
const bridgedS = 0.15;
/** Without a line: pressure rises with speed until the relief valve opens, so a fall to this share of what it was is air at the pump. */
const fallenShare = 0.65;

/**
 * Found when oil pressure lies below the job's limit in the pull; where none
 * is written, when it falls far below what the same pull had at lower speed.
 * Bearings differ too much for a usual line: the builder's figure comes first.
 */
export function oilPressure(log: JudgedLog): LogEvent[] {
  const read = log.channels.get('oilPressure');
  if (!read) return [];
  const pressure = judgedReading(log, 'oilPressure', read);
  const broken = log.broken.get('oilPressure');
  const written = log.engine.limits.oilPressure !== undefined;
  if (written && !broken) return [];
  const reached = highestSoFar(log, pressure);
  const line = (index: number) => broken?.limit ?? fallenShare * sampleAt(reached, index);
  return stretches(log, (index) => sampleAt(pressure, index) < line(index), broken ? 0 : leastS, bridgedS).map(
    (stretch) => {
      let [least, at] = [Infinity, stretch.from];
      for (let index = stretch.from; index <= stretch.to; index++)
        if (sampleAt(pressure, index) < least) [least, at] = [sampleAt(pressure, index), index];
      const against = broken
        ? say`the limit is ${quantity(broken.limit, 'kPa')}`
        : say`after ${quantity(sampleAt(reached, at), 'kPa')} at lower speed`;
      return eventAt(log, stretch, {
        id: 'oil-pressure-low',
        name: 'oil pressure',
        severity: 'stop',
        figure: least,
        unit: 'kPa',
        message: ({ fromRpm, toRpm }) =>
          say`Oil pressure is down to ${quantity(least, 'kPa')} from ${spokenRpm(fromRpm)} to ${spokenRpm(toRpm)} rpm (${against}). Do not run again before level, pump and sensor are checked.`,
        channels: ['oilPressure', 'oilTemperature'],
        ...(broken ? { limit: 'oilPressure' } : {}),
      });
    },
  );
}
