import { convert, dimensionOf, unitFromSpelling, type UnitName } from '../units/units.ts';

/**
 * The channels that Suvok knows by name, the unit each is kept in, and how a
 * person reads it. Any other name is a custom channel: kept and shown, never judged.
 */
export const knownChannels = {
  time: { unit: 's', label: 'Time' },
  rollerSpeed: { unit: 'rad/s', label: 'Roller speed' },
  hubSpeed: { unit: 'rad/s', label: 'Hub speed' },
  hubSpeedLeft: { unit: 'rad/s', label: 'Left hub speed' },
  hubSpeedRight: { unit: 'rad/s', label: 'Right hub speed' },
  hubSpeedFrontLeft: { unit: 'rad/s', label: 'Front left hub speed' },
  hubSpeedFrontRight: { unit: 'rad/s', label: 'Front right hub speed' },
  hubSpeedRearLeft: { unit: 'rad/s', label: 'Rear left hub speed' },
  hubSpeedRearRight: { unit: 'rad/s', label: 'Rear right hub speed' },
  rollerSpeedFront: { unit: 'rad/s', label: 'Front roller speed' },
  rollerSpeedRear: { unit: 'rad/s', label: 'Rear roller speed' },
  surfaceSpeed: { unit: 'm/s', label: 'Surface speed' },
  roadSpeed: { unit: 'm/s', label: 'Road speed' },
  absorberTorque: { unit: 'N·m', label: 'Absorber torque' },
  absorberTorqueLeft: { unit: 'N·m', label: 'Left absorber torque' },
  absorberTorqueRight: { unit: 'N·m', label: 'Right absorber torque' },
  absorberTorqueFront: { unit: 'N·m', label: 'Front absorber torque' },
  absorberTorqueRear: { unit: 'N·m', label: 'Rear absorber torque' },
  absorberTorqueFrontLeft: { unit: 'N·m', label: 'Front left absorber torque' },
  absorberTorqueFrontRight: { unit: 'N·m', label: 'Front right absorber torque' },
  absorberTorqueRearLeft: { unit: 'N·m', label: 'Rear left absorber torque' },
  absorberTorqueRearRight: { unit: 'N·m', label: 'Rear right absorber torque' },
  engineSpeed: { unit: 'rpm', label: 'Engine speed' },
  throttle: { unit: '%', label: 'Throttle' },
  lambda: { unit: '–', label: 'λ' },
  lambdaTarget: { unit: '–', label: 'λ target' },
  manifoldPressure: { unit: 'kPa', label: 'Manifold pressure' },
  boost: { unit: 'kPa', label: 'Boost' },
  boostTarget: { unit: 'kPa', label: 'Boost target' },
  boostDuty: { unit: '%', label: 'Boost duty' },
  intakeTemperature: { unit: '°C', label: 'Intake' },
  coolantTemperature: { unit: '°C', label: 'Coolant' },
  oilTemperature: { unit: '°C', label: 'Oil' },
  exhaustTemperature: { unit: '°C', label: 'Exhaust' },
  oilPressure: { unit: 'kPa', label: 'Oil pressure' },
  fuelPressure: { unit: 'kPa', label: 'Fuel pressure' },
  fuelPressureTarget: { unit: 'kPa', label: 'Fuel pressure target' },
  railPressure: { unit: 'MPa', label: 'Rail pressure' },
  railPressureTarget: { unit: 'MPa', label: 'Rail pressure target' },
  injectorPulse: { unit: 'ms', label: 'Injector pulse' },
  injectorDuty: { unit: '%', label: 'Injector duty' },
  fuelTrimShort: { unit: '%', label: 'Short fuel trim' },
  fuelTrimLong: { unit: '%', label: 'Long fuel trim' },
  ignitionAdvance: { unit: '°BTDC', label: 'Ignition' },
  knockRetard: { unit: '°', label: 'Knock retard' },
  ethanolContent: { unit: '%vol', label: 'Ethanol' },
  learnedOctane: { unit: '%', label: 'Learned octane' },
  batteryVoltage: { unit: 'V', label: 'Battery' },
  airMassFlow: { unit: 'g/s', label: 'Air mass flow' },
  fuelFlow: { unit: 'g/s', label: 'Fuel flow' },
  airFlowSensor: { unit: 'V', label: 'Air flow sensor' },
  crankcasePressure: { unit: 'kPa', label: 'Crankcase' },
  airTemperature: { unit: '°C', label: 'Air temperature' },
  airPressure: { unit: 'hPa', label: 'Air pressure' },
  relativeHumidity: { unit: '%', label: 'Humidity' },
} as const satisfies Record<string, { unit: UnitName; label: string }>;

export type KnownChannel = keyof typeof knownChannels;

/** How a person reads a channel's name; a custom channel's own. */
export function channelLabel(name: string): string {
  return Object.hasOwn(knownChannels, name) ? knownChannels[name as KnownChannel].label : name;
}

/** Any one of these says how fast the drum turns. */
export const speedChannels: readonly KnownChannel[] = [
  'rollerSpeed',
  'hubSpeed',
  'surfaceSpeed',
  'hubSpeedLeft',
  'hubSpeedRight',
  'hubSpeedFrontLeft',
  'hubSpeedFrontRight',
  'hubSpeedRearLeft',
  'hubSpeedRearRight',
  'rollerSpeedFront',
  'rollerSpeedRear',
];

/** The speed of a car on the road, where no drum turns under it. */
export const roadSpeedChannel: KnownChannel = 'roadSpeed';

/** Those of load cells. */
export const torqueChannels: readonly KnownChannel[] = (Object.keys(knownChannels) as KnownChannel[]).filter((name) =>
  name.startsWith('absorberTorque'),
);

/** The channels that figures are made from: a bad cell in one costs its row, a strange unit refuses the file. */
export const neededChannels: readonly KnownChannel[] = ['time', ...speedChannels, ...torqueChannels, 'engineSpeed'];

const folded = new Map(Object.keys(knownChannels).map((name) => [fold(name), name as KnownChannel]));
// The place may be written first: `left hub speed`.
for (const name of [...speedChannels, ...torqueChannels]) {
  const [, what, place] = /^(hubSpeed|rollerSpeed|absorberTorque)([A-Z]\w+)$/.exec(name) ?? [];
  if (what && place) folded.set(fold(`${place}${what}`), name);
}

function fold(name: string): string {
  return name.toLowerCase().replace(/[\s_-]/g, '');
}

/** The known channel that a column heading means (`Roller speed`, `roller_speed`), or undefined. */
export function knownChannelNamed(name: string): KnownChannel | undefined {
  return folded.get(fold(name));
}

/**
 * How values written in a unit become those of a known channel.
 * @returns undefined when the unit is not known or measures something else
 */
export function toChannelUnit(name: KnownChannel, written: string): ((value: number) => number) | undefined {
  const { unit } = knownChannels[name];
  const source = unitFromSpelling(written);
  if (source === undefined || dimensionOf(source) !== dimensionOf(unit)) return undefined;
  return (value) => convert(value, source, unit);
}

/** The unit that a channel's readings are kept in, a mixture named as what it is. @param unit of the channel as it was recorded */
export function keptUnit(name: string, unit: string): string {
  return unit === '–' && name.startsWith('lambda') ? 'λ' : unit;
}

/** What a channel of a mixture is called where it is told as an air–fuel ratio. */
export const asAirFuelRatio = (label: string): string => label.replace('λ', 'Air–fuel ratio');
