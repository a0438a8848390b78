import { limitChannel, limitQuantities, readingTolerance, type LimitQuantity } from '../limits/limit.ts';
import { plain } from '../limits/broken-words.ts';
import { spokenRpm } from '../units/spoken-rpm.ts';
import { averaged, eventAt, highest, stretches, type LogEvent, type RunLog } from './run-log.ts';

// Set by bench/logs.ts: no false alarm on healthy logs, most hits on faulty ones.
/** Beyond a limit for so long it counts, s; breaks up to this long do not end it. */
const leastS = 0.15;
const bridgedS = 0.2;
/** A reading's noise is averaged over this time, s. */
const averagedS = 0.2;

/**
 * Every limit of the job whose quantity is logged, held against the pull:
 * where it is crossed, and by how much. Torque and power are no channels and
 * are judged from the curve.
 */
export function limitsCrossed(log: RunLog): LogEvent[] {
  return Object.entries(log.engine.limits).flatMap(([name, value]): LogEvent[] => {
    if (!(name in limitQuantities) || value === undefined) return [];
    const quantity = name as LimitQuantity;
    const { label, unit, side } = limitQuantities[quantity];
    const channel = limitChannel(quantity);
    const read = channel === 'engineSpeed' ? log.engineSpeedRpm : log.channels.get(channel);
    if (!read) return [];
    const sign = side === 'most' ? 1 : -1;
    const over = averaged(log, read, averagedS).map((reading) => sign * (reading - value));
    const tolerance = readingTolerance({ quantity, value, scale: null });
    const [first, ...more] = stretches(log, (index) => over[index]! > tolerance, leastS, bridgedS);
    if (!first) return [];
    const beyond = Math.max(...[first, ...more].map((stretch) => highest(over, stretch)));
    const figure = value + sign * beyond;
    const event = eventAt(log, { from: first.from, to: (more.at(-1) ?? first).to }, { id: `limit-${quantity}`, severity: 'stop', figure, unit, message: '', channels: [channel] }); // prettier-ignore
    const told = (reading: number) => `${plain(reading)}${unit && ` ${unit}`}`;
    const reaches = side === 'most' ? 'reaches' : 'falls to';
    return [
      {
        ...event,
        message: `${label} ${reaches} ${told(figure)} from ${spokenRpm(event.fromRpm)} to ${spokenRpm(event.toRpm)} rpm: the limit is ${told(value)}.`,
      },
    ];
  });
}
