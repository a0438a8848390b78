import { sampleAt } from '../../numerics/sample-at.ts';
import { say } from '../../sentence/sentence.ts';
import {
  mixtureOf,
  eventAt,
  highest,
  stretches,
  type JudgedLog,
  type LogEvent,
  type Stretch,
} from '../pull/run-log.ts';
import { probeShare } from '../../limits/limit.ts';
import { leanestLambda } from '../../limits/suggestions.ts';
import { spokenRpm } from '../../units/spoken.ts';
import { medianOf } from '../../numerics/quantile.ts';
import { judgedReading } from './extremes.ts';

// Set by bench/logs.ts: no false alarm on healthy logs, most hits on faulty ones.
/** Off target by more than this, %, counts, for so long, s. */
const leanPercent = 5;
const richPercent = 8;
const leastS = 0.25;
/** Without a target: richer than this at full load wastes power and washes the bores; boost needs more to cool it. */
const richLambda = { plain: 0.77, boosted: 0.72 };

/**
 * λ at full load: against its target where one is logged, and against the
 * lean limit of job or fuel. Error % = (λ/λ_target − 1)·100; positive is lean.
 * A diesel runs lean by nature and is not judged here.
 */
export function mixture(log: JudgedLog): LogEvent[] {
  const { engine, channels } = log;
  const read = channels.get('lambda');
  if (!read || engine.ignition === 'compression') return [];
  const lambda = judgedReading(log, 'lambda', read);
  const target = channels.get('lambdaTarget');
  const broken = log.broken.get('lambda');
  // A usual limit is no limit of the job: what lies beyond it is a finding.
  const bound = broken?.limit ?? (engine.limits.lambda === undefined ? leanestLambda(engine) : Infinity);
  const limit = bound * (1 + probeShare);
  const error = (index: number) => (target ? 100 * (sampleAt(lambda, index) / sampleAt(target, index) - 1) : NaN);
  const lean = stretches(log, (index) => sampleAt(lambda, index) > limit || error(index) > leanPercent, leastS, 0.15);
  const tooRich = engine.boosted ? richLambda.boosted : richLambda.plain;
  const rich = stretches(
    log,
    (index) => error(index) < -richPercent || (!target && sampleAt(lambda, index) < tooRich),
    leastS,
    0.15,
  );
  const shown = ['lambda', 'lambdaTarget', 'fuelPressure', 'injectorDuty'];
  const over = (stretch: Stretch, values: Float64Array) => medianOf(values.subarray(stretch.from, stretch.to + 1));
  return [
    ...lean.map((stretch) => {
      const beyond = highest(lambda, stretch) > limit;
      // Of a limit the farthest is told, as everywhere else; of a target what it was over the stretch.
      const value = beyond ? highest(lambda, stretch) : over(stretch, lambda);
      const percent = () =>
        over(
          stretch,
          lambda.map((_, index) => error(index)),
        );
      const against = beyond
        ? say`the ${broken ? 'limit' : 'usual limit, not set in this job,'} is ${mixtureOf(log, bound)}`
        : `${Math.round(percent())} % leaner than its target`;
      return eventAt(log, stretch, {
        id: 'lean',
        name: 'lean',
        severity: beyond ? 'stop' : 'mind',
        figure: value,
        unit: 'λ',
        message: ({ fromRpm, toRpm }) =>
          say`Lean: ${mixtureOf(log, value)} from ${spokenRpm(fromRpm)} to ${spokenRpm(toRpm)} rpm, ${against}. Look at fuel pressure and injector duty before the next run.`,
        channels: shown,
        ...(beyond && broken ? { limit: 'lambda' } : {}),
      });
    }),
    ...rich.map((stretch) => {
      const value = over(stretch, lambda);
      return eventAt(log, stretch, {
        id: 'rich',
        name: 'rich',
        severity: 'mind',
        figure: value,
        unit: 'λ',
        message: ({ fromRpm, toRpm }) =>
          say`Rich: ${mixtureOf(log, value)} from ${spokenRpm(fromRpm)} to ${spokenRpm(toRpm)} rpm. It costs power, and washes the bores in the long run.`,
        channels: shown,
      });
    }),
  ];
}
