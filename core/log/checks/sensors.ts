import { sampleAt } from '../../numerics/sample-at.ts';
import { quantity, say } from '../../sentence/sentence.ts';
import { mixtureOf, eventAt, pullOf, thirdsOf, type LogEvent, type RunLog } from '../pull/run-log.ts';
import { channelLabel, knownChannels, type KnownChannel } from '../../recording/channels.ts';
import { medianOf } from '../../numerics/quantile.ts';

/** Channels of sensors that have a ceiling and should move in a pull. */
const limited: readonly KnownChannel[] = [
  'lambda',
  'boost',
  'manifoldPressure',
  'airMassFlow',
  'airFlowSensor',
  'exhaustTemperature',
  'fuelPressure',
];
/** Channels that cannot stand still through a pull. */
const lively: readonly KnownChannel[] = [
  'lambda',
  'boost',
  'manifoldPressure',
  'airMassFlow',
  'airFlowSensor',
  'oilPressure',
  'injectorPulse',
  'injectorDuty',
];
/** A reading counts as stuck when it stays at its highest for this long, s, and this share of the pull. */
const ceilingS = 0.5;
const ceilingShare = 0.12;

/** A reading as it was, in the unit of its channel. */
const readingOf = (name: KnownChannel, value: number, log: RunLog) =>
  name === 'lambda' ? mixtureOf(log, value) : quantity(value, knownChannels[name].unit);

/** Found when a channel climbs, then stays at exactly one highest value: the sensor's end, not the engine's. */
export function sensorCeiling(log: RunLog): LogEvent[] {
  const [first, last] = pullOf(log);
  return limited.flatMap((name): LogEvent[] => {
    const values = log.channels.get(name);
    if (!values) return [];
    let top = -Infinity;
    let least = Infinity;
    for (let index = first; index <= last; index++) {
      top = Math.max(top, Number.isNaN(sampleAt(values, index)) ? -Infinity : sampleAt(values, index));
      least = Math.min(least, Number.isNaN(sampleAt(values, index)) ? Infinity : sampleAt(values, index));
    }
    const range = top - least;
    if (!(range > 0)) return [];
    let best: { from: number; to: number } | undefined;
    let from = -1;
    for (let index = first; index <= last + 1; index++) {
      const at = index <= last && sampleAt(values, index) >= top - 1e-9 * Math.abs(top);
      if (at && from < 0) from = index;
      if (at || from < 0) continue;
      if (!best || index - 1 - from > best.to - best.from) best = { from, to: index - 1 };
      from = -1;
    }
    if (!best) return [];
    const lasts = sampleAt(log.time, best.to) - sampleAt(log.time, best.from);
    // A coarse reading may dwell on its highest step; a ceiling is reached from far below and held.
    const climbed = range > 0.08 * Math.abs(top);
    if (lasts < Math.max(ceilingS, ceilingShare * (log.endS - log.startS)) || !climbed) return [];
    return [
      eventAt(log, best, {
        id: 'sensor-ceiling',
        name: `${channelLabel(name)} at its end`,
        severity: 'stop',
        figure: top,
        unit: knownChannels[name].unit,
        message: say`${channelLabel(name)} stays at ${readingOf(name, top, log)} for ${lasts.toFixed(1)} s: the sensor has reached its ceiling, and what is above it is not seen.`,
        channels: [name],
      }),
    ];
  });
}

/** Found when a channel that must move reads one value through the whole pull. */
export function sensorDead(log: RunLog): LogEvent[] {
  const [first, last] = pullOf(log);
  if (last - first < 20) return [];
  return lively.flatMap((name): LogEvent[] => {
    const values = log.channels.get(name);
    if (!values) return [];
    const taken = values.subarray(first, last + 1).filter((value) => !Number.isNaN(value));
    const still = taken.every((value) => value === taken[0]);
    if (taken.length > 0 && !still) return [];
    return [
      eventAt(
        log,
        { from: first, to: last },
        {
          id: 'sensor-dead',
          name: `${channelLabel(name)} dead`,
          severity: 'stop',
          figure: taken[0] ?? NaN,
          unit: knownChannels[name].unit,
          message:
            taken.length === 0
              ? `${channelLabel(name)} gave no reading in the whole pull.`
              : say`${channelLabel(name)} reads ${readingOf(name, sampleAt(taken, 0), log)} through the whole pull: the sensor is dead, clogged or not connected.`,
          channels: [name],
        },
      ),
    ];
  });
}

// Set by bench/logs.ts: no false alarm on healthy logs, most hits on faulty ones.
const lowV = 12.6;
const veryLowV = 11.8;

/** Found when the battery is low in the pull: ignition and injectors give less than they are asked. */
export function lowBattery(log: RunLog): LogEvent[] {
  const volts = log.channels.get('batteryVoltage');
  if (!volts) return [];
  const [first, last] = pullOf(log);
  const usual = medianOf(volts.subarray(first, last + 1));
  if (!(usual < lowV)) return [];
  return [
    eventAt(
      log,
      { from: first, to: last },
      {
        id: 'low-battery',
        name: 'battery low',
        severity: usual < veryLowV ? 'stop' : 'mind',
        figure: usual,
        unit: 'V',
        message: `The battery reads ${usual.toFixed(1)} V in the pull: charge it, or look at the generator, before ignition and injectors are judged.`,
        channels: ['batteryVoltage', 'injectorPulse'],
      },
    ),
  ];
}

const trimMoves = 2.5;

/** Found when the controller's long trim still moves in the pull: it is relearning, and the next run will differ. */
export function relearning(log: RunLog): LogEvent[] {
  const trim = log.channels.get('fuelTrimLong');
  if (!trim) return [];
  const [first, last] = pullOf(log);
  const [before, after] = thirdsOf(log, trim);
  const moved = after - before;
  if (!(Math.abs(moved) > trimMoves)) return [];
  return [
    eventAt(
      log,
      { from: first, to: last },
      {
        id: 'relearning',
        name: 'relearning',
        severity: 'mind',
        figure: moved,
        unit: '%',
        message: `The long fuel trim moves by ${moved > 0 ? '+' : '−'}${Math.abs(moved).toFixed(1)} % within the pull: the controller is still relearning. Make conditioning runs until it rests.`,
        channels: ['fuelTrimLong', 'fuelTrimShort', 'lambda'],
      },
    ),
  ];
}
