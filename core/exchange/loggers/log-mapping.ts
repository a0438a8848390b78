import { sampleAt } from '../../numerics/sample-at.ts';
import type { LogTable } from './log-table.ts';
import { knownChannelNamed, knownChannels, toChannelUnit, type KnownChannel } from '../../recording/channels.ts';
import type { Recording } from '../../recording/recording.ts';
import { pickedAt } from '../../numerics/picked.ts';
import { Refusal } from '../../refusal.ts';

/** What one column of a logger's table is; null leaves it out. */
export interface MappedColumn {
  heading: string;
  channel: string | null;
  unit: string;
}

/** How the files of one logger are read: made once, remembered by their headings. */
export interface LogMapping {
  columns: MappedColumn[];
  /** Air–fuel ratio that the logger shows for λ 1, where it shows ratios: its own setting, whatever the fuel is. */
  ratioAtLambda1: number | null;
}

/** The heading of the column that tells the time. */
export const timeChannel = 'time';

/** Words that people and loggers use for a channel, folded; the first that fits. */
const spellings: readonly (readonly [RegExp, KnownChannel | 'time'])[] = [
  [/^(time|t|timestamp|elapsed|logtime|seconds)$/, 'time'],
  [/^(rpm|enginerpm|enginespeed|revs|motorspeed|nmot)$/, 'engineSpeed'],
  [/^(tps|throttle|throttleposition|pedal|throttleangle)$/, 'throttle'],
  [/^(lambda|afr|airfuelratio|wideband|lambda1|afr1|o2)$/, 'lambda'],
  [/^(lambdatarget|targetlambda|afrtarget|targetafr|desiredlambda)$/, 'lambdaTarget'],
  [/^(map|manifoldpressure|manifoldabsolutepressure)$/, 'manifoldPressure'],
  [/^(boost|boostpressure)$/, 'boost'],
  [/^(boosttarget|targetboost|desiredboost)$/, 'boostTarget'],
  [/^(boostduty|wastegateduty|wgdc|wastegate)$/, 'boostDuty'],
  [/^(iat|intaketemperature|intakeairtemperature|airtemp|intaketemp|chargetemp)$/, 'intakeTemperature'],
  [/^(ect|clt|coolant|coolanttemperature|coolanttemp|watertemp)$/, 'coolantTemperature'],
  [/^(oiltemperature|oiltemp)$/, 'oilTemperature'],
  [/^(egt|exhausttemperature|exhaustgastemperature|egt1)$/, 'exhaustTemperature'],
  [/^(oilpressure|oilpress)$/, 'oilPressure'],
  [/^(fuelpressure|fuelpress)$/, 'fuelPressure'],
  [/^(railpressure|fuelrailpressure)$/, 'railPressure'],
  [/^(injectorpulse|pulsewidth|injectorpulsewidth|injpw|pw|injectiontime)$/, 'injectorPulse'],
  [/^(injectorduty|injduty|dutycycle|injectordutycycle)$/, 'injectorDuty'],
  [/^(ignition|ignitionadvance|timing|ignitiontiming|sparkadvance|advance|ignangle)$/, 'ignitionAdvance'],
  [/^(knock|knockretard|knockcorrection)$/, 'knockRetard'],
  [/^(battery|batteryvoltage|vbat|voltage)$/, 'batteryVoltage'],
  [/^(ethanol|ethanolcontent|flexfuel)$/, 'ethanolContent'],
  [/^(maf|airmass|airmassflow|massairflow)$/, 'airMassFlow'],
  [/^(stft|shortfueltrim|fueltrimshort)$/, 'fuelTrimShort'],
  [/^(ltft|longfueltrim|fueltrimlong)$/, 'fuelTrimLong'],
];

const folded = (heading: string) =>
  heading
    .toLowerCase()
    .replace(/λ/g, 'lambda')
    .replace(/[^a-z0-9]/g, '');

/** Petrol's ratio: what most loggers take for λ 1 until they are told otherwise. */
export const usualRatio = 14.7;

/** A first guess at what each column is, to be put right by hand. */
export function guessedMapping({ columns }: LogTable): LogMapping {
  const taken = new Set<string>();
  const mapped = columns.map(({ heading, unit }) => {
    const word = folded(heading);
    const guess = knownChannelNamed(heading) ?? spellings.find(([pattern]) => pattern.test(word))?.[1] ?? null;
    const channel = guess && !taken.has(guess) ? guess : null;
    if (channel) taken.add(channel);
    return { heading, channel, unit: unit || usualUnit(channel) };
  });
  const lambda = columns[mapped.findIndex(({ channel }) => channel === 'lambda')];
  return { columns: mapped, ratioAtLambda1: lambda && readsRatios(lambda.values) ? usualRatio : null };
}

const usualUnit = (channel: string | null) =>
  channel && channel in knownChannels ? knownChannels[channel as KnownChannel].unit : '';

/** Above 4 nothing is λ: an air–fuel ratio. */
function readsRatios(values: Float64Array): boolean {
  const read = values.filter((value) => !Number.isNaN(value));
  return read.filter((value) => value > 4).length > 0.5 * read.length;
}

/** What a source is recognised by. */
export const headingsKey = (columns: readonly { heading: string }[]): string =>
  columns
    .map(({ heading }) => heading.trim().toLowerCase())
    .sort()
    .join('|');

/**
 * A logger's recording from its table.
 * @throws Refusal where no column is the time or the engine speed, a unit is none of its channel, or the time does not advance
 */
export function recordingBy({ columns, ratioAtLambda1 }: LogMapping, table: LogTable): Recording {
  const valuesOf = (heading: string) => table.columns.find((column) => column.heading === heading)?.values;
  const taken = columns.filter(({ channel }) => channel !== null);
  const twice = taken.find(({ channel }, at) => taken.findIndex((other) => other.channel === channel) !== at);
  if (twice) throw new Refusal(`Two columns are taken for the same channel (${twice.channel}): choose one of them.`);
  const used = taken.flatMap(({ heading, channel, unit }) => {
    const values = valuesOf(heading);
    return values && channel
      ? [{ channel, values: inChannelUnit(channel, unit, values, heading, ratioAtLambda1) }]
      : [];
  });
  const time = used.find(({ channel }) => channel === timeChannel)?.values;
  if (!time) throw new Refusal('Say which column is the time: without it the log cannot be laid on the dyno’s clock.');
  if (!used.some(({ channel }) => channel === 'engineSpeed'))
    throw new Refusal('Say which column is the engine speed: the log is laid on the dyno’s clock by it.');
  const kept: number[] = [];
  let last = -Infinity;
  for (let row = 0; row < time.length; row++) {
    if (!(sampleAt(time, row) > last)) continue;
    last = sampleAt(time, row);
    kept.push(row);
  }
  if (kept.length < 0.5 * time.length)
    throw new Refusal(
      'The time does not advance in most rows: another column is the time, or its unit is another one.',
    );
  const of = (values: Float64Array) => pickedAt(values, kept);
  return {
    time: of(time),
    channels: used.flatMap(({ channel, values }) =>
      channel === timeChannel ? [] : [{ name: channel, unit: unitOf(channel, columns), values: of(values) }],
    ),
  };
}

const unitOf = (channel: string, columns: readonly MappedColumn[]) =>
  channel in knownChannels
    ? knownChannels[channel as KnownChannel].unit
    : (columns.find((column) => column.channel === channel)?.unit ?? '');

function inChannelUnit(
  channel: string,
  unit: string,
  values: Float64Array,
  heading: string,
  ratioAtLambda1: number | null,
): Float64Array {
  const isMixture = channel === 'lambda' || channel === 'lambdaTarget';
  if (isMixture && ratioAtLambda1 !== null) return values.map((value) => value / ratioAtLambda1);
  // A mixture has no unit that would need turning, however it is written.
  if (isMixture || !(channel in knownChannels)) return values;
  const known = channel as KnownChannel;
  const turn = toChannelUnit(known, unit || knownChannels[known].unit);
  if (!turn)
    throw new Refusal(`"${unit}" is no unit of ${knownChannels[known].label.toLowerCase()} (column ${heading}).`);
  return values.map(turn);
}
