import type { Hello } from '../../contract/instruments/bench-link.ts';
import type { DynoKind } from '../../core/dyno/dyno-profile.ts';
import { drumsIn } from '../../core/dyno/drums.ts';
import {
  knownChannels,
  neededChannels,
  speedChannels,
  toChannelUnit,
  type KnownChannel,
} from '../../core/recording/channels.ts';
import { Refusal } from '../../core/refusal.ts';

/** How an instrument's values become Suvok's channels. */
export interface ChannelIntake {
  channels: { name: string; unit: string }[];
  /** Where each stands in the instrument's frames. */
  columns: number[];
  /** One a channel, from the declared unit to the unit it is kept in. */
  conversions: ((value: number) => number)[];
}

/**
 * Settles the name and unit of every channel that an instrument declares.
 *
 * @param names the shop's own names for its channels: declared → kept; an empty one leaves the channel out
 * @param ratioKnown the shop has calibrated engine ÷ drum speed of this instrument
 * @throws Refusal when a channel that figures need comes in a unit that is not known, or the instrument lacks what its kind needs
 */
export function channelIntake(
  hello: Hello,
  names: Readonly<Record<string, string>> = {},
  ratioKnown = false,
): ChannelIntake {
  const channels: ChannelIntake['channels'] = [];
  const conversions: ChannelIntake['conversions'] = [];
  const columns: number[] = [];
  for (const [column, { name: declared, unit }] of hello.channels.entries()) {
    const name = (Object.hasOwn(names, declared) ? (names[declared] ?? '') : declared).trim();
    if (name === '') continue;
    columns.push(column);
    if (channels.some((channel) => channel.name === name)) throw new Refusal(`the channel "${name}" is declared twice`);
    if (name === 'time') throw new Refusal('"time" is no channel: every frame carries its time already');
    const known = Object.hasOwn(knownChannels, name) ? (name as KnownChannel) : undefined;
    const conversion = known && toChannelUnit(known, unit);
    if (known && !conversion && neededChannels.includes(known)) {
      throw new Refusal(`the unit "${unit}" of the channel "${name}" is not known`);
    }
    channels.push({ name, unit: known && conversion ? knownChannels[known].unit : unit });
    conversions.push(conversion ?? ((value) => value));
  }
  if (channels.length === 0) throw new Refusal('no channel is left: name at least one');
  refuseMissing(hello, channels, ratioKnown);
  return { channels, columns, conversions };
}

/** Readings fewer than this a second show no pull, Hz. */
const leastRateHz = 20;

/**
 * What each kind of instrument is nothing without; docs/bench-link.md lists it.
 * A channel under a name of its own may still be named by the shop: one whose
 * unit fits stands for what is missing until then.
 */
function refuseMissing(
  { kind, rateHz, engineToDrumRatio }: Hello,
  channels: ChannelIntake['channels'],
  ratioKnown: boolean,
): void {
  const has = (needed: KnownChannel) =>
    channels.some(
      ({ name, unit }) =>
        name === needed || (!Object.hasOwn(knownChannels, name) && toChannelUnit(needed, unit) !== undefined),
    );
  const lacks = (...needed: KnownChannel[]) => !needed.every(has);
  if (kind === 'weather') {
    if (lacks('airTemperature', 'airPressure', 'relativeHumidity'))
      throw new Refusal('a weather station needs airTemperature, airPressure and relativeHumidity');
    return;
  }
  if (kind === 'engine-logger') {
    if (lacks('engineSpeed')) throw new Refusal('a logger needs engineSpeed: it is time-aligned with the dyno by it');
    return;
  }
  if (!speedChannels.some(has)) throw new Refusal('a dyno needs a rollerSpeed, hubSpeed or surfaceSpeed channel');
  refuseLoads(
    kind,
    channels.map(({ name }) => name),
    lacks,
  );
  if (lacks('engineSpeed') && engineToDrumRatio === undefined && !ratioKnown)
    throw new Refusal('a dyno needs an engineSpeed channel, or its engineToDrumRatio');
  if (rateHz !== undefined && rateHz < leastRateHz)
    throw new Refusal(`a dyno needs ${leastRateHz} readings a second at least; it says that it gives ${rateHz}`);
}

/** A drum of several that is not whole is refused here, and not after the first pull. */
function refuseLoads(kind: DynoKind, names: readonly string[], lacks: (...needed: KnownChannel[]) => boolean): void {
  const single = names.some((name) => name === 'rollerSpeed' || name === 'hubSpeed' || name === 'surfaceSpeed');
  if (!single && drumsIn(names, kind)) return;
  if (kind !== 'inertia-roller' && lacks('absorberTorque') && lacks('absorberTorqueLeft', 'absorberTorqueRight'))
    throw new Refusal('a loaded roller or hub needs absorberTorque, or one for each of its drums');
}
