import { spokenRpm } from '../units/spoken-rpm.ts';
import { medianOf } from '../numerics/quantile.ts';
import { judgedReading } from './extremes.ts';
import { eventAt, highest, pullOf, stretches, type JudgedLog, type LogEvent, type RunLog } from './run-log.ts';

// Set by bench/logs.ts: no false alarm on healthy logs, most hits on faulty ones.
/** Fuel pressure may lie below what is expected by this much, kPa, and this share of it, for so long, s. */
const sagKpa = 25;
const sagShare = 0.06;
const leastS = 0.2;
const usualDutyPercent = 90;

/**
 * Fuel pressure against expectation: what it was at the start of the pull and,
 * with a regulator that follows the manifold, plus the boost since. Whether it
 * follows is told from the pressure itself while there is little load. Crossing
 * the job's floor is another finding (limits-crossed.ts).
 */
export function fuelPressureSag(log: RunLog): LogEvent[] {
  const pressure = log.channels.get('fuelPressure');
  if (!pressure) return [];
  const [first, last] = pullOf(log);
  const early = Math.max(first + 1, first + Math.floor(0.12 * (last - first)));
  const boost = log.channels.get('boost');
  const base = medianOf(pressure.subarray(first, early));
  const baseBoost = boost ? medianOf(boost.subarray(first, early)) : 0;
  const follows = boost !== undefined && followsBoost(pressure, boost, first, last);
  const expected = (index: number) => base + (follows ? Math.max(0, boost[index]! - baseBoost) : 0);
  const missing = (index: number) => expected(index) - pressure[index]!;
  return stretches(log, (index) => missing(index) > Math.max(sagKpa, sagShare * base), leastS, 0.15).map((stretch) => {
    let most = 0;
    for (let index = stretch.from; index <= stretch.to; index++) most = Math.max(most, missing(index));
    const event = eventAt(log, stretch, {
      id: 'fuel-pressure-sag',
      severity: 'stop',
      figure: most,
      unit: 'kPa',
      message: '',
      channels: ['fuelPressure', 'boost', 'lambda', 'injectorDuty'],
    });
    return {
      ...event,
      message: `Fuel pressure sags by ${Math.round(most)} kPa from ${spokenRpm(event.fromRpm)} rpm on: pump, filter or line do not keep up. Do not add fuel or boost before that is mended.`,
    };
  });
}

/** Most of the rise of boost is found again in fuel pressure before the top of the pull. */
function followsBoost(pressure: Float64Array, boost: Float64Array, first: number, last: number): boolean {
  const middle = first + Math.floor(0.45 * (last - first));
  const third = Math.max(2, Math.floor(0.12 * (last - first)));
  const rise = (values: Float64Array) =>
    medianOf(values.subarray(middle, middle + third)) - medianOf(values.subarray(first, first + third));
  return rise(boost) > 15 && rise(pressure) > 0.5 * rise(boost);
}

/** Injectors that hardly close: no room is left to enrich. From pulse and speed where duty is not logged. */
export function injectorDuty(log: JudgedLog): LogEvent[] {
  const pulse = log.channels.get('injectorPulse');
  const read = log.channels.get('injectorDuty') ?? pulse?.map((ms, index) => (ms * log.engineSpeedRpm[index]!) / 1200);
  if (!read || log.engine.ignition === 'compression') return [];
  const duty = judgedReading(log, 'injectorDuty', read);
  const broken = log.broken.get('injectorDuty');
  const written = log.engine.limits.injectorDuty;
  const limit = written ?? usualDutyPercent;
  const limitWords = written === undefined ? `usual limit ${limit} %, not set in this job` : `limit ${limit} %`;
  return stretches(log, (index) => duty[index]! > limit, 0.15, 0.15).map((stretch) => {
    const most = highest(duty, stretch);
    const beyond = broken !== undefined && most > broken.limit;
    const event = eventAt(log, stretch, {
      id: 'injector-duty',
      severity: beyond || most >= 98 ? 'stop' : 'mind',
      figure: most,
      unit: '%',
      message: '',
      channels: ['injectorDuty', 'injectorPulse', 'fuelPressure', 'lambda'],
      ...(beyond ? { limit: 'injectorDuty' } : {}),
    });
    return {
      ...event,
      message: `Injectors are open up to ${Math.round(most)} % of the time from ${spokenRpm(event.fromRpm)} rpm on (${limitWords}): no room is left to enrich.`,
    };
  });
}
