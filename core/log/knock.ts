import { spokenRpm } from '../units/spoken-rpm.ts';
import { eventAt, highest, stretches, type LogEvent, type RunLog } from './run-log.ts';

// Set by bench/logs.ts: no false alarm on healthy logs, most hits on faulty ones.
/** Less taken back than this, °, is how a controller listens; from this on it is knock. */
const usualLimitDeg = 3;
const heardDeg = 1.2;
const leastS = 0.08;

/** Found when the controller takes ignition back in the pull: it hears knock. A diesel has none to take back. */
export function knock(log: RunLog): LogEvent[] {
  const retard = log.channels.get('knockRetard');
  if (!retard || log.engine.ignition === 'compression') return [];
  const limit = log.engine.limits.knockRetard ?? usualLimitDeg;
  const most = Math.min(heardDeg, limit);
  return stretches(log, (index) => retard[index]! >= most, leastS, 0.25).map((stretch) => {
    const deg = highest(retard, stretch);
    const event = eventAt(log, stretch, {
      id: 'knock',
      severity: deg >= limit ? 'stop' : 'mind',
      figure: deg,
      unit: '°',
      message: '',
      channels: ['knockRetard', 'ignitionAdvance', 'intakeTemperature', 'lambda'],
    });
    const what = deg >= limit ? 'Knock' : 'Light knock';
    return {
      ...event,
      message: `${what}: up to ${deg.toFixed(1)}° taken back from ${spokenRpm(event.fromRpm)} to ${spokenRpm(event.toRpm)} rpm. ${deg >= limit ? 'Take advance or boost out before the next run.' : 'Do not go further here.'}`,
    };
  });
}
