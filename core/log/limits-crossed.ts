import { plain } from '../limits/broken-words.ts';
import { limitChannel, readingTolerance } from '../limits/limit.ts';
import { spokenRpm } from '../units/spoken-rpm.ts';
import { channelOf } from './channel-of.ts';
import { judgedReading } from './extremes.ts';
import { eventAt, stretches, type JudgedLog, type LogEvent } from './run-log.ts';

/** Breaks up to this long do not end a stretch beyond a limit, s. */
const bridgedS = 0.2;

/**
 * The limits that the log went beyond, each with the place from where it was
 * crossed first to where it was last. Torque and power are no channels and
 * stand in the run's list alone.
 */
export function limitsCrossed(log: JudgedLog): LogEvent[] {
  return [...log.broken.values()].flatMap(({ quantity, label, unit, side, limit, reading, usual }): LogEvent[] => {
    const channel = limitChannel(quantity);
    const read = channelOf(log, channel);
    if (!read) return [];
    const values = judgedReading(log, channel, read);
    const tolerance = readingTolerance({ quantity, value: limit, scale: null });
    const sign = side === 'most' ? 1 : -1;
    const beyond = stretches(log, (index) => sign * (values[index]! - limit) > tolerance, 0, bridgedS); // prettier-ignore
    const [first] = beyond;
    if (!first) return [];
    const at = { from: first.from, to: (beyond.at(-1) ?? first).to };
    const event = eventAt(log, at, { id: `limit-${quantity}`, severity: 'stop', figure: reading, unit, message: '', channels: [channel], limit: quantity }); // prettier-ignore
    const told = (value: number) => `${plain(value)}${unit && ` ${unit}`}`;
    const bound = usual ? `the usual limit, not set in this job, is ${told(limit)}` : `the limit is ${told(limit)}`;
    const range = event.fromRpm === event.toRpm ? `at ${spokenRpm(event.fromRpm)} rpm` : `from ${spokenRpm(event.fromRpm)} to ${spokenRpm(event.toRpm)} rpm`; // prettier-ignore
    // An engine speed is its own place.
    const where = quantity === 'engineSpeed' ? '' : ` ${range}`;
    return [
      {
        ...event,
        message: `${label} ${side === 'most' ? 'reaches' : 'falls to'} ${told(reading)}${where}: ${bound}.`,
      },
    ];
  });
}
