import { sampleAt } from '../../numerics/sample-at.ts';
import { spokenRpm } from '../../units/spoken.ts';
import { judgedReading } from './extremes.ts';
import { eventAt, highest, stretches, type JudgedLog, type LogEvent } from '../pull/run-log.ts';

// Set by bench/logs.ts: no false alarm on healthy logs, most hits on faulty ones.
/** Less taken back than this, °, is how a controller listens. */
const heardDeg = 1.2;
const leastS = 0.08;

/** Found when the controller takes ignition back in the pull: it hears knock. A diesel has none to take back. */
export function knock(log: JudgedLog): LogEvent[] {
  const retard = log.channels.get('knockRetard');
  if (!retard || log.engine.ignition === 'compression') return [];
  const broken = log.broken.get('knockRetard');
  const values = judgedReading(log, 'knockRetard', retard);
  const heard = Math.min(heardDeg, broken?.limit ?? heardDeg);
  return stretches(log, (index) => sampleAt(retard, index) >= heard, leastS, 0.25).map((stretch) => {
    const deg = highest(values, stretch);
    const beyond = broken !== undefined && deg > broken.limit;
    return eventAt(log, stretch, {
      id: 'knock',
      name: 'knock',
      severity: beyond ? 'stop' : 'mind',
      figure: deg,
      unit: '°',
      message: ({ fromRpm, toRpm }) =>
        `${beyond ? 'Knock' : 'Light knock'}: up to ${deg.toFixed(1)}° taken back from ${spokenRpm(fromRpm)} to ${spokenRpm(toRpm)} rpm. ${beyond ? 'Take advance or boost out before the next run.' : 'Do not go further here.'}`,
      channels: ['knockRetard', 'ignitionAdvance', 'intakeTemperature', 'lambda'],
      ...(beyond ? { limit: 'knockRetard' } : {}),
    });
  });
}
