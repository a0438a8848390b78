import { sampleAt } from '../../numerics/sample-at.ts';
import { quantity, say } from '../../sentence/sentence.ts';
import { meanOf } from '../../numerics/mean.ts';
import { seriesOf } from '../../numerics/picked.ts';
import { medianOf } from '../../numerics/quantile.ts';
import { firstNotBelow } from '../../numerics/interpolation.ts';
import { spokenRpm } from '../../units/spoken.ts';
import { eventAt, pullOf, stretches, type FuelRegulation, type LogEvent, type RunLog } from '../pull/run-log.ts';

// Set by bench/logs.ts: no false alarm on healthy logs, most hits on faulty ones.
/** Fuel pressure may lie below what is expected by this much, kPa, and this share of it, for so long, s. */
const sagKpa = 25;
const sagShare = 0.06;
const leastS = 0.2;
/** A step of manifold pressure of this size, kPa, tells what the regulator follows … */
const tellingStepKpa = 25;
/** … which it does from this share of the step on, and does not up to that one. */
const followsFrom = 0.6;
const staysUpTo = 0.3;
/** The step is looked at between these times before the pull and after, s. */
const beforeS = [1.2, 0.5] as const;
const afterS = [0.1, 0.6] as const;

/** What a regulator holds constant: a pressure at each sample, kPa, and in words what it is held against. */
interface Held {
  regulation: FuelRegulation;
  constant: (index: number) => number;
}

/**
 * A sag of the low-pressure circuit: a fall of what its regulator holds
 * constant that grows with flow. A regulator that refers to the manifold holds
 * rail less manifold, so that the gauge pressure falls with boost; a
 * returnless system holds the gauge pressure; a third kind is led to a target.
 * Which one it is stands in the car's record, or is told by the step of the
 * manifold when the throttle opens, or by what the pressure does before the
 * sag. Crossing the job's floor is another finding (limits-crossed.ts).
 */
export function fuelPressureSag(log: RunLog): LogEvent[] {
  const pressure = log.channels.get('fuelPressure');
  if (!pressure) return [];
  const sags = possible(log, pressure).map((held) => sagsOf(log, held, pressure));
  // Where nobody can tell how the regulator works, only a fall that would be a sag with either kind is told.
  const [least] = sags.sort((a, b) => (a[0]?.figure ?? 0) - (b[0]?.figure ?? 0));
  return least ?? [];
}

/** What the regulator holds, as the car's record says or the log tells; null where nobody can. */
export function regulationOf(log: RunLog): FuelRegulation | null {
  const pressure = log.channels.get('fuelPressure');
  if (!pressure) return null;
  if (log.channels.has('fuelPressureTarget')) return 'target';
  return log.engine.fuelRegulation ?? toldByPressure(log, pressure, manifoldOf(log));
}

const manifoldOf = ({ channels }: RunLog) => channels.get('manifoldPressure') ?? channels.get('boost');

/** The regulators that it may be. */
function possible(log: RunLog, pressure: Float64Array): Held[] {
  const target = log.channels.get('fuelPressureTarget');
  const manifold = manifoldOf(log);
  const stays: Held = { regulation: 'constant', constant: (index) => sampleAt(pressure, index) };
  const follows =
    manifold &&
    ({
      regulation: 'manifold',
      constant: (index: number) => sampleAt(pressure, index) - sampleAt(manifold, index),
    } as const);
  if (target)
    return [{ regulation: 'target', constant: (index) => sampleAt(pressure, index) - sampleAt(target, index) }];
  switch (regulationOf(log)) {
    case 'manifold':
      return [follows ?? stays];
    case 'constant':
      return [stays];
    case 'target':
      // A regulator that follows a target, and the target was not logged: nothing can be expected of it.
      return [];
    case null:
      return follows ? [follows, stays] : [stays];
  }
}

/** What the regulator refers to, from the step of the manifold at the opening, else from the rise of boost in the first half of the pull. */
function toldByPressure(
  log: RunLog,
  pressure: Float64Array,
  manifold: Float64Array | undefined,
): FuelRegulation | null {
  if (!manifold) return 'constant';
  const { time, startS } = log;
  const middle = (values: Float64Array, fromS: number, toS: number) => {
    const part = values.subarray(firstNotBelow(time, fromS), firstNotBelow(time, toS));
    return part.length < 3 ? NaN : medianOf(part);
  };
  const [first, last] = pullOf(log);
  const halfS = startS + 0.45 * (sampleAt(time, last) - sampleAt(time, first));
  const looks = [
    [startS - beforeS[0], startS - beforeS[1], startS + afterS[0], startS + afterS[1]],
    [startS + afterS[0], startS + afterS[1], halfS, halfS + 0.5],
    [startS - beforeS[0], startS - beforeS[1], halfS, halfS + 0.5],
  ] as const;
  for (const [a, b, c, d] of looks) {
    const step = middle(manifold, c, d) - middle(manifold, a, b);
    if (!(step >= tellingStepKpa)) continue;
    const share = (middle(pressure, c, d) - middle(pressure, a, b)) / step;
    if (share >= followsFrom) return 'manifold';
    if (share <= staysUpTo) return 'constant';
  }
  return null;
}

function sagsOf(log: RunLog, { regulation, constant }: Held, pressure: Float64Array): LogEvent[] {
  const [first, last] = pullOf(log);
  const early = Math.max(first + 1, first + Math.floor(0.12 * (last - first)));
  const at = seriesOf(last + 1, (index) => (index < first ? NaN : constant(index)));
  // A target is what it should be; the others hold what they held at the beginning.
  const base = regulation === 'target' ? 0 : medianOf(at.subarray(first, early));
  const room = Math.max(sagKpa, sagShare * medianOf(pressure.subarray(first, early)));
  const missing = (index: number) => base - sampleAt(at, index);
  return stretches(log, (index) => missing(index) > room, leastS, 0.15)
    .filter((stretch) => growsWithFlow(log, stretch))
    .map((stretch) => {
      let most = 0;
      for (let index = stretch.from; index <= stretch.to; index++) if (missing(index) > most) most = missing(index);
      const against = { manifold: ' against the manifold', constant: '', target: ' below its target' }[regulation];
      return eventAt(log, stretch, {
        id: 'fuel-pressure-sag',
        name: 'fuel pressure sags',
        severity: 'stop',
        figure: most,
        unit: 'kPa',
        message: ({ fromRpm }) =>
          say`Fuel pressure sags by ${quantity(most, 'kPa')}${against} from ${spokenRpm(fromRpm)} rpm on: pump, filter or line do not keep up. Do not add fuel or boost before that is mended.`,
        channels: ['fuelPressure', regulation === 'target' ? 'fuelPressureTarget' : 'boost', 'lambda', 'injectorDuty'],
      });
    });
}

/** Whether it is missing where more flows than before: what is missing at little flow is no sag. */
function growsWithFlow(log: RunLog, { from, to }: { from: number; to: number }): boolean {
  const [first] = pullOf(log);
  const flow = log.channels.get('injectorDuty') ?? log.engineSpeedRpm;
  if (from <= first) return true;
  const read = (a: number, b: number) => meanOf(flow.subarray(a, b).filter((value) => !Number.isNaN(value)));
  return !(read(from, to + 1) < read(first, from));
}
