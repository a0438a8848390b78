import { sampleAt } from '../../numerics/sample-at.ts';
import { quantity, say } from '../../sentence/sentence.ts';
import { limitChannel, readingTolerance, type LimitQuantity } from '../../limits/limit.ts';
import { spokenRpm } from '../../units/spoken.ts';
import { channelOf, eventAt, stretches, type JudgedLog, type LogEvent } from '../pull/run-log.ts';
import { judgedReading } from './extremes.ts';

/** Breaks up to this long do not end a stretch beyond a limit, s. */
const bridgedS = 0.2;

/**
 * The limits that the log went beyond, each with the place from where it was
 * crossed first to where it was last. Torque and power are no channels and
 * stand in the run's list alone.
 */
export function limitsCrossed(log: JudgedLog): LogEvent[] {
  return [...log.broken.values()].flatMap(
    ({ quantity: which, label, unit, side, limit, reading, stoichiometric, usual }): LogEvent[] => {
      const channel = limitChannel(which);
      const read = channelOf(log, channel);
      if (!read) return [];
      const values = judgedReading(log, channel, read);
      const tolerance = readingTolerance({ quantity: which, value: limit, scale: null });
      const sign = side === 'most' ? 1 : -1;
      const beyond = stretches(log, (index) => sign * (sampleAt(values, index) - limit) > tolerance, 0, bridgedS);
      const [first] = beyond;
      if (!first) return [];
      const at = { from: first.from, to: (beyond.at(-1) ?? first).to };
      const told = (value: number) => quantity(value, unit, stoichiometric);
      const bound = usual
        ? say`the usual limit, not set in this job, is ${told(limit)}`
        : say`the limit is ${told(limit)}`;
      return [
        eventAt(log, at, {
          id: `limit-${which}`,
          name: label,
          severity: 'stop',
          figure: reading,
          unit,
          message: (place) =>
            say`${label} ${side === 'most' ? 'reaches' : 'falls to'} ${told(reading)}${whereIn(which, place)}: ${bound}.`,
          channels: [channel],
          limit: which,
        }),
      ];
    },
  );
}

/** ` from 3,000 to 4,000 rpm`; nothing for an engine speed, which is its own place. */
function whereIn(which: LimitQuantity, { fromRpm, toRpm }: Pick<LogEvent, 'fromRpm' | 'toRpm'>): string {
  if (which === 'engineSpeed') return '';
  if (fromRpm === toRpm) return ` at ${spokenRpm(fromRpm)} rpm`;
  return ` from ${spokenRpm(fromRpm)} to ${spokenRpm(toRpm)} rpm`;
}
