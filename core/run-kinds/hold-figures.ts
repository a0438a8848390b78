import { meanOfSamples } from '../statistics/mean-of-samples.ts';
import { sampleAt } from '../numerics/sample-at.ts';
import type { DynoProfile } from '../dyno/dyno-profile.ts';
import type { Finding } from '../checks/check.ts';
import { meanOf } from '../numerics/mean.ts';
import { quantity, say } from '../sentence/sentence.ts';
import { channelLabel, keptUnit } from '../recording/channels.ts';
import type { Recording } from '../recording/recording.ts';
import { Refusal } from '../refusal.ts';
import type { LoggerBeside } from '../log/view/logged-pull.ts';
import { logOfWhole } from '../log/view/whole-recording.ts';
import { unknownEngine } from '../log/pull/run-log.ts';
import { readingStep } from '../numerics/reading-step.ts';
import { figure, type RunFigure, type RunFigures } from './run-figure.ts';
import { steadyHolds, type SteadyHold, type StepSettings } from './steady-holds.ts';

/** Holds of two runs are the same one where both lie in the same of these steps. */
const speedStepRpm = 100;
const loadStepKpa = 5;
const pedalStepPct = 5;
/** Channels that say what is held, not what comes of it. */
const setBySomebody = new Set(['engineSpeed', 'rollerSpeed', 'hubSpeed', 'time']);

/** The speeds that were to be held, rpm. */
export interface PlannedHolds {
  speedsRpm: readonly number[];
}

/** A hold this near to a planned speed is that one; others were only passed on the way there. */
const nearShare = 0.04;

const isNamed = ({ engineSpeedRpm }: SteadyHold, planned: PlannedHolds | undefined) =>
  !planned || planned.speedsRpm.some((rpm) => Math.abs(engineSpeedRpm.mean / rpm - 1) <= nearShare);

/**
 * Power, torque and the mean of every logged channel at each hold, with
 * intervals; holds are named by speed and load, so that those of two runs can
 * be laid beside each other. Holds at speeds that the plan does not name, on the
 * way to one that it does, are left out.
 *
 * @throws Refusal when nothing is held steady
 */
export function holdFigures(
  recording: Recording,
  dyno: DynoProfile,
  engineToDrumRatio: number | undefined,
  beside: readonly LoggerBeside[],
  planned?: PlannedHolds,
  settings?: StepSettings,
): RunFigures {
  const held = steadyHolds(recording, dyno, engineToDrumRatio, settings);
  const named = held.filter((hold) => isNamed(hold, planned));
  // Where another row was driven than was planned, all of it is told.
  const holds = named.length > 0 ? named : held;
  const { log, units } = logOfWhole({ recording, dyno, engineToDrumRatio, beside }, unknownEngine);
  const at = (hold: SteadyHold, values: Float64Array) => {
    const from = hold.startS + hold.settlingS;
    return values.filter(
      (value, index) =>
        sampleAt(log.time, index) >= from && sampleAt(log.time, index) <= hold.endS && !Number.isNaN(value),
    );
  };
  const figures: RunFigure[] = [];
  const taken = new Set<string>();
  for (const hold of holds) {
    const place = placeOf(hold, (name) => {
      const values = log.channels.get(name);
      return values && at(hold, values);
    });
    // Held twice in one run: the first stands.
    if (taken.has(place)) continue;
    taken.add(place);
    figures.push(
      figure(`${place}|powerKw`, `${place}: power`, ['kW', 2], hold.powerKw, 'more'),
      figure(`${place}|torqueNm`, `${place}: torque`, ['N·m', 1], hold.torqueNm, 'more'),
    );
    for (const [name, values] of log.channels) {
      if (setBySomebody.has(name) || name.startsWith('absorberTorque')) continue;
      const samples = at(hold, values);
      const unit = units.get(name);
      if (samples.length < 8 || unit === undefined) continue;
      figures.push(
        figure(`${place}|${name}`, `${place}: ${channelLabel(name)}`, [keptUnit(name, unit), digitsOf(unit)], {
          ...meanOfSamples(samples),
          resolution: readingStep(samples),
        }),
      );
    }
  }
  if (figures.length === 0) throw new Refusal('Nothing in the recording is held steady under load.');
  return { figures, found: flatSensors(holds, log.channels, units, at) };
}

/** What must follow the load: a reading that does not, over a power so many times the least, is none. */
const followsLoad = [
  'exhaustTemperature',
  'airMassFlow',
  'fuelFlow',
  'manifoldPressure',
  'injectorPulse',
  'injectorDuty',
];
const loadTimes = 3;
/** A reading that moves by less than this share of itself from hold to hold stands still. */
const stillShare = 0.002;

/** Sensors that read the same at every hold, whatever was held. */
function flatSensors(
  holds: readonly SteadyHold[],
  channels: ReadonlyMap<string, Float64Array>,
  units: ReadonlyMap<string, string>,
  at: (hold: SteadyHold, values: Float64Array) => Float64Array,
): Finding[] {
  const powers = holds.map(({ powerKw }) => powerKw.mean);
  const [least, most] = [Math.min(...powers), Math.max(...powers)];
  if (holds.length < 3 || !(least > 0) || most < loadTimes * least) return [];
  return followsLoad.flatMap((name): Finding[] => {
    const [values, unit] = [channels.get(name), units.get(name)];
    if (!values || unit === undefined) return [];
    const means = holds
      .map((hold) => at(hold, values))
      .filter(({ length }) => length > 0)
      .map((read) => meanOf(read));
    const [low, high] = [Math.min(...means), Math.max(...means)];
    if (means.length < 3 || high - low > stillShare * Math.abs(high)) return [];
    return [
      {
        id: 'flat-sensor',
        severity: 'mind',
        figure: high,
        unit: keptUnit(name, unit),
        message: say`${channelLabel(name)} reads ${quantity(high, keptUnit(name, unit))} at every hold, from ${quantity(least, 'kW')} to ${quantity(most, 'kW')}: the sensor is dead or not connected, or the channel is another’s. Nothing is to be read from it.`,
      },
    ];
  });
}

const askedOfHolds = /\|(powerKw|torqueNm|lambda|fuelFlow|exhaustTemperature|knockRetard)$/;
/** Whether a figure is one that a hold is usually asked for; every other channel is there for who wants it. */
export const isAskedOfHolds = (id: string): boolean => askedOfHolds.test(id);

/** `2,500 rpm, 55 kPa`: by the manifold's pressure, or the pedal where that was not logged. */
function placeOf(hold: SteadyHold, samplesOf: (name: string) => Float64Array | undefined): string {
  const near = (value: number, step: number) => Math.round(value / step) * step;
  const speed = `${near(hold.engineSpeedRpm.mean, speedStepRpm).toLocaleString('en-GB')} rpm`;
  for (const [name, step, unit] of [
    ['manifoldPressure', loadStepKpa, 'kPa'],
    ['throttle', pedalStepPct, '% pedal'],
  ] as const) {
    const samples = samplesOf(name);
    if (samples && samples.length > 0) return `${speed}, ${near(meanOfSamples(samples).mean, step)} ${unit}`;
  }
  return speed;
}

const digitsOf = (unit: string): number => (unit === '–' || unit === 'V' ? 3 : unit === '°C' || unit === 'rpm' ? 0 : 1);
