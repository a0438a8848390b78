import { sampleAt } from '../../numerics/sample-at.ts';
import { spokenRpm } from '../../units/spoken.ts';
import { judgedReading } from './extremes.ts';
import { eventAt, highest, stretches, type JudgedLog, type LogEvent } from '../pull/run-log.ts';

// Set by bench/logs.ts: no false alarm on healthy logs, most hits on faulty ones.
const usualDutyPercent = 90;

/** Injectors that hardly close: no room is left to enrich. From pulse and speed where duty is not logged. */
export function injectorDuty(log: JudgedLog): LogEvent[] {
  const pulse = log.channels.get('injectorPulse');
  const read =
    log.channels.get('injectorDuty') ?? pulse?.map((ms, index) => (ms * sampleAt(log.engineSpeedRpm, index)) / 1200);
  if (!read || log.engine.ignition === 'compression') return [];
  const duty = judgedReading(log, 'injectorDuty', read);
  const broken = log.broken.get('injectorDuty');
  const written = log.engine.limits.injectorDuty;
  const limit = written ?? usualDutyPercent;
  const limitWords = written === undefined ? `usual limit ${limit} %, not set in this job` : `limit ${limit} %`;
  return stretches(log, (index) => sampleAt(duty, index) > limit, 0.15, 0.15).map((stretch) => {
    const most = highest(duty, stretch);
    const beyond = broken !== undefined && most > broken.limit;
    return eventAt(log, stretch, {
      id: 'injector-duty',
      name: 'injectors',
      severity: beyond || most >= 98 ? 'stop' : 'mind',
      figure: most,
      unit: '%',
      message: ({ fromRpm }) =>
        `Injectors are open up to ${Math.round(most)} % of the time from ${spokenRpm(fromRpm)} rpm on (${limitWords}): no room is left to enrich.`,
      channels: ['injectorDuty', 'injectorPulse', 'fuelPressure', 'lambda'],
      ...(beyond ? { limit: 'injectorDuty' } : {}),
    });
  });
}
