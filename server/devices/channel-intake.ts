import type { Hello } from '../../contract/bench-link.ts';
import {
  knownChannels,
  neededChannels,
  speedChannels,
  toChannelUnit,
  type KnownChannel,
} from '../../core/channels/channels.ts';
import { Refusal } from '../../core/refusal.ts';

/** How an instrument's values become Suvok's channels. */
export interface ChannelIntake {
  channels: { name: string; unit: string }[];
  /** One a channel, from the declared unit to the unit it is kept in. */
  conversions: ((value: number) => number)[];
}

/**
 * Settles the unit of every channel that an instrument declares.
 * @throws Refusal when a channel that figures need comes in a unit that is not known, or a dyno has no speed
 */
export function channelIntake(hello: Hello): ChannelIntake {
  const channels: ChannelIntake['channels'] = [];
  const conversions: ChannelIntake['conversions'] = [];
  for (const { name, unit } of hello.channels) {
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
  const names = channels.map((channel) => channel.name);
  if (hello.dyno && !speedChannels.some((name) => names.includes(name))) {
    throw new Refusal('a dyno needs a rollerSpeed, hubSpeed or surfaceSpeed channel');
  }
  return { channels, conversions };
}
