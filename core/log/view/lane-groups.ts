import { speedChannels, torqueChannels } from '../../recording/channels.ts';

/**
 * Channels that are read together, in the order in which a log is read: what
 * the mixture is, what presses it in, when it is lit, what feeds it, what gets hot.
 */
const readTogether: readonly (readonly string[])[] = [
  ['lambda', 'lambdaTarget'],
  ['boost', 'boostTarget'],
  ['ignitionAdvance', 'knockRetard'],
  ['injectorDuty'],
  ['injectorPulse'],
  ['fuelPressure', 'fuelPressureTarget', 'manifoldPressure'],
  ['railPressure', 'railPressureTarget'],
  ['fuelTrimShort', 'fuelTrimLong'],
  ['airMassFlow'],
  ['airFlowSensor'],
  ['boostDuty'],
  ['intakeTemperature'],
  ['exhaustTemperature'],
  ['coolantTemperature', 'oilTemperature'],
  ['oilPressure'],
  ['crankcasePressure'],
  ['ethanolContent'],
  ['learnedOctane'],
  ['batteryVoltage'],
];

/** How the drum moves: what the figures are made of, and seldom what a log is opened for. */
const ofTheDrum: readonly string[] = ['time', ...speedChannels, ...torqueChannels];
/** Pairs of sides and axles, by their names' endings. */
const sides = /(FrontLeft|FrontRight|RearLeft|RearRight|Left|Right|Front|Rear)$/;

/** A group of channels that make one lane, named by its first. */
export interface LaneGroup {
  id: string;
  channels: readonly string[];
  /** Says how the drum moves. */
  ofTheDrum: boolean;
}

/** The logged channels in groups, in reading order; channels that a person named come last, each by itself. */
export function laneGroups(logged: readonly string[]): LaneGroup[] {
  const known = readTogether.flatMap((group) => {
    const channels = group.filter((name) => logged.includes(name));
    return channels.length > 0 ? [{ id: channels[0]!, channels, ofTheDrum: false }] : [];
  });
  const rest = logged.filter((name) => name !== 'time' && !readTogether.some((group) => group.includes(name)));
  const paired = new Map<string, string[]>();
  for (const name of rest) {
    const what = ofTheDrum.includes(name) ? name.replace(sides, '') : name;
    paired.set(what, [...(paired.get(what) ?? []), name]);
  }
  const others = Array.from(paired.values(), (channels) => ({
    id: channels[0]!,
    channels,
    ofTheDrum: ofTheDrum.includes(channels[0]!),
  }));
  return [...known, ...others.filter((group) => !group.ofTheDrum), ...others.filter((group) => group.ofTheDrum)];
}
