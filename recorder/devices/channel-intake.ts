import type { Hello } from '../../contract/bench-link.ts';
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
 * @throws Refusal when a channel that figures need comes in a unit that is not known, or a dyno has no speed
 */
export function channelIntake(hello: Hello, names: Readonly<Record<string, string>> = {}): ChannelIntake {
  const channels: ChannelIntake['channels'] = [];
  const conversions: ChannelIntake['conversions'] = [];
  const columns: number[] = [];
  for (const [column, { name: declared, unit }] of hello.channels.entries()) {
    const name = (names[declared] ?? declared).trim();
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
  const kept = channels.map((channel) => channel.name);
  if (hello.dyno && !speedChannels.some((name) => kept.includes(name))) {
    throw new Refusal('a dyno needs a rollerSpeed, hubSpeed or surfaceSpeed channel');
  }
  if (channels.length === 0) throw new Refusal('no channel is left: name at least one');
  return { channels, columns, conversions };
}
