import { sampleAt } from '../../numerics/sample-at.ts';
import { quantity, say } from '../../sentence/sentence.ts';
import { medianOf } from '../../numerics/quantile.ts';
import { spokenRpm } from '../../units/spoken.ts';
import { judgedReading } from './extremes.ts';
import { eventAt, highestSoFar, stretches, type LogEvent, type RunLog } from '../pull/run-log.ts';

// Set by bench/logs.ts: no false alarm on healthy logs, most hits on faulty ones.
/** Rail pressure may lie below its target by this much, MPa, and this share of it, for so long, s. */
const underMpa = 1;
const underShare = 0.06;
const leastS = 0.25;
/** Without a target: it may fall from what the pull has reached by this share. */
const fallenShare = 0.12;

/**
 * The high-pressure circuit by itself: rail pressure against its target where
 * one is logged, else against the most that the pull has reached. The
 * low-pressure circuit that feeds it has a check of its own (fuel-supply.ts).
 */
export function railPressure(log: RunLog): LogEvent[] {
  const read = log.channels.get('railPressure');
  if (!read) return [];
  const pressure = judgedReading(log, 'railPressure', read);
  const target = log.channels.get('railPressureTarget');
  const reached = target ?? highestSoFar(log, pressure);
  const room = (index: number) =>
    target ? Math.max(underMpa, underShare * sampleAt(reached, index)) : fallenShare * sampleAt(reached, index);
  const missing = (index: number) => sampleAt(reached, index) - sampleAt(pressure, index);
  return stretches(log, (index) => missing(index) > room(index), leastS, 0.15).map((stretch) => {
    let most = 0;
    for (let index = stretch.from; index <= stretch.to; index++) if (missing(index) > most) most = missing(index);
    const than = target
      ? 'its target'
      : say`the ${quantity(medianOf(reached.subarray(stretch.from, stretch.to + 1)), 'MPa')} that it had reached`;
    return eventAt(log, stretch, {
      id: 'rail-pressure-sag',
      name: 'rail pressure sags',
      severity: 'stop',
      figure: most,
      unit: 'MPa',
      message: ({ fromRpm }) =>
        say`Rail pressure lies up to ${quantity(most, 'MPa')} below ${than} from ${spokenRpm(fromRpm)} rpm on: the high-pressure pump, or what feeds it, does not keep up. Look at the low-pressure side first; add no fuel before.`,
      channels: ['railPressure', 'railPressureTarget', 'fuelPressure', 'lambda'],
    });
  });
}
