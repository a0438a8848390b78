import { sampleAt } from '../../numerics/sample-at.ts';
import { spokenRpm } from '../../units/spoken.ts';
import { channelOf, eventAt, highest, stretches, type JudgedLog, type LogEvent } from '../pull/run-log.ts';
import { judgedReading } from './extremes.ts';

// Set by bench/logs.ts: no false alarm on healthy logs, most hits on faulty ones.
/** What a controller may usually add or take by itself, %. */
const usualTrimPercent = 10;
const leastS = 0.5;

/** Found when the controller adds or takes more fuel by itself than the job allows: the table, or what feeds it, is off by as much. */
export function fuelTrim(log: JudgedLog): LogEvent[] {
  const read = channelOf(log, 'fuelTrim');
  if (!read) return [];
  const broken = log.broken.get('fuelTrim');
  const written = log.engine.limits.fuelTrim;
  const bound = broken?.limit ?? (written === undefined ? usualTrimPercent : Infinity);
  const trim = judgedReading(log, 'fuelTrim', read);
  return stretches(log, (index) => sampleAt(trim, index) > bound, broken ? 0 : leastS, 0.3).map((stretch) => {
    const words = broken ? `the limit is ${bound} %` : `usual limit ${bound} %, not set in this job`;
    return eventAt(log, stretch, {
      id: 'fuel-trim',
      name: 'fuel trim',
      severity: broken ? 'stop' : 'mind',
      figure: highest(trim, stretch),
      unit: '%',
      message: ({ fromRpm, toRpm }) =>
        `The controller trims fuel by up to ${highest(trim, stretch).toFixed(1)} % from ${spokenRpm(fromRpm)} to ${spokenRpm(toRpm)} rpm (${words}): put the table, fuel pressure or the air reading right first.`,
      channels: ['fuelTrimLong', 'fuelTrimShort', 'lambda', 'fuelPressure'],
      ...(broken ? { limit: 'fuelTrim' } : {}),
    });
  });
}
