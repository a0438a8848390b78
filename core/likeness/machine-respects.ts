import { quantity, say, type Sentence } from '../sentence/sentence.ts';
import type { Severity } from '../checks/check.ts';
import { all, known, type LikeForLikeInput, type RunConditions, type Unlikeness } from './run-conditions.ts';
import { meanOf } from '../numerics/mean.ts';
import { spokenRpm } from '../units/spoken.ts';

/** Ratios differ from this share on: another gear, or tyres of another size. */
const ratioShare = 0.015;
/** Ramps differ from this share on. */
const rampShare = 0.1;
const pressureKpa = 10;
/** Slip over more than this share of a judged range moves its mean by more than a usual spread. */
const slippedShare = 0.05;

/** Whether runs were made on more than one dyno, as instrument or profile tell. */
function onSeveralDynos(runs: readonly RunConditions[]): boolean {
  // The ratios of its axles are the car's, and its height alters no reading.
  const profiles = runs.map((run) => JSON.stringify({ ...run.dyno, axleRatios: undefined, altitudeM: undefined }));
  return new Set(profiles).size > 1 || new Set(known(runs.map(({ instrument }) => instrument))).size > 1;
}

export function dynos(input: LikeForLikeInput): Unlikeness | undefined {
  const runs = all(input);
  if (!onSeveralDynos(runs)) return undefined;
  const kinds = [...new Set(runs.map((run) => run.dyno.kind))];
  const instruments = [...new Set(known(runs.map(({ instrument }) => instrument)))];
  const which =
    instruments.length > 1 ? `different dynos, ${instruments.join(' and ')}` : 'different dynos or dyno settings';
  return {
    id: kinds.length > 1 ? 'other-kind' : 'other-dyno',
    severity: 'stop',
    message:
      kinds.length > 1
        ? `The runs come from different kinds of dyno: ${kinds.join(' and ')}.`
        : `The runs come from ${which}; their difference is not the change alone.`,
    matters: 'two machines differ by several percent on one car, and not by the same everywhere',
    remedy: 'Run both setups on one machine with one profile.',
  };
}

/** What is written down of a run in a word. */
export type WordField = 'gear' | 'tyres' | 'fuel' | 'fan' | 'bonnet' | 'loadMode';

/** A respect in which runs differ where the words of a field do. */
export interface WordRespect {
  id: string;
  severity: Severity;
  /** Several of them, as in `different tyres`. */
  words: string;
  matters: Sentence;
  remedy: string;
}

export function differentWord(
  input: LikeForLikeInput,
  field: WordField,
  { id, severity, words, matters, remedy }: WordRespect,
): Unlikeness | undefined {
  const values = [...new Set(known(all(input).map((run) => run[field])))];
  if (values.length < 2) return undefined;
  return {
    id,
    severity,
    message: `The runs were made with different ${words}: ${values.join(', ')}.`.replace(
      'with different gears',
      'in different gears',
    ),
    matters,
    remedy,
  };
}

export function ratios(input: LikeForLikeInput): Unlikeness | undefined {
  // A gear that is named already tells it, and another dyno has other drums.
  if (new Set(known(all(input).map((run) => run.gear))).size > 1 || onSeveralDynos(all(input))) return undefined;
  const values = known(all(input).map((run) => run.ratio));
  if (values.length < 2) return undefined;
  const share = Math.max(...values) / Math.min(...values) - 1;
  if (share < ratioShare) return undefined;
  return {
    id: 'other-ratio',
    severity: 'stop',
    figure: Math.round(1000 * share) / 10,
    unit: '%',
    message: `The ratio of engine to drum speed differs by ${(100 * share).toFixed(1)} % between the runs: another gear, other tyres, or slip.`,
    matters: 'another gear changes the reading by several percent without changing the engine',
    remedy: 'Check gear, tyres and the ratio calibration, and run one side again.',
  };
}

export function pressures(input: LikeForLikeInput): Unlikeness | undefined {
  const values = known(all(input).map((run) => run.tyrePressureKpa));
  if (values.length < 2) return undefined;
  const apart = Math.max(...values) - Math.min(...values);
  if (apart < pressureKpa) return undefined;
  return {
    id: 'other-tyre-pressure',
    severity: 'mind',
    figure: Math.round(apart),
    unit: 'kPa',
    message: say`Tyre pressures differ by ${quantity(apart, 'kPa')} between the runs.`,
    matters: say`rolling losses change with pressure: about 1 % of power for ${quantity(50, 'kPa')}`,
    remedy: 'Set one pressure, warm, before both.',
  };
}

export function ramps({ test, baseline }: LikeForLikeInput): Unlikeness | undefined {
  const ramps = (runs: typeof test) => known(runs.map((run) => run.rampRpmPerS));
  const [a, b] = [ramps(test), ramps(baseline)];
  if (a.length === 0 || b.length === 0) return undefined;
  const share = meanOf(a) / meanOf(b) - 1;
  if (Math.abs(share) < rampShare) return undefined;
  return {
    id: 'other-ramp',
    severity: 'mind',
    figure: Math.round(100 * share),
    unit: '%',
    message: `The engine was swept ${Math.abs(Math.round(100 * share))} % ${share > 0 ? 'faster' : 'slower'} (${Math.round(meanOf(a))} against ${Math.round(meanOf(b))} rpm/s).`,
    matters: 'what turns the engine itself faster is missing from the reading: 1 % is easily reached',
    remedy: 'Set one ramp, or count a difference below 1 % as nothing.',
  };
}

/** Runs that slip over a part of the judged range: their figures there are not the engine's. */
export function slip({ test, baseline, judged }: LikeForLikeInput): Unlikeness | undefined {
  if (!judged) return undefined;
  const [from, to] = judged;
  const inRange = (zone: { fromRpm: number; toRpm: number }) =>
    Math.min(zone.toRpm, to) - Math.max(zone.fromRpm, from) > slippedShare * (to - from);
  const slipped = [...test, ...baseline].flatMap(({ label, slips = [] }) =>
    slips.filter(inRange).map((zone) => ({ label, ...zone })),
  );
  const [first] = slipped;
  if (!first) return undefined;
  const labels = [...new Set(slipped.map(({ label }) => label))];
  const [least, most] = [
    Math.min(...slipped.map(({ fromRpm }) => fromRpm)),
    Math.max(...slipped.map(({ toRpm }) => toRpm)),
  ];
  const percent = Math.max(...slipped.map((zone) => zone.percent));
  return {
    id: 'slip',
    severity: 'stop',
    fromRpm: least,
    toRpm: most,
    figure: percent,
    unit: '%',
    message: `The tyres slip by up to ${percent.toFixed(1)} % from ${spokenRpm(least)} to ${spokenRpm(most)} rpm in ${labels.join(', ')}.`,
    matters: 'where tyres slip, the reading is not the engine’s',
    remedy: 'Stop the slip and run again, or compare a band outside it.',
  };
}
