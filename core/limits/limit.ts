/** What is known of a quantity that a limit can be set for. */
interface LimitDescription {
  label: string;
  /** Inside; `λ` for a mixture, which has none. */
  unit: string;
  /** Which way is dangerous. */
  side: 'most' | 'least';
  /** It belongs to a scale: crank or wheels. */
  scaled: boolean;
  /** It means something under load alone: a closed throttle reads lean, and low on oil. */
  underLoad?: boolean;
  /** The channel that it is read from, where that has another name. */
  channel?: string;
}

/** Quantities that a limit can be set for. */
export const limitQuantities = {
  torque: { label: 'Torque', unit: 'N·m', side: 'most', scaled: true },
  power: { label: 'Power', unit: 'kW', side: 'most', scaled: true },
  engineSpeed: { label: 'Engine speed', unit: 'rpm', side: 'most', scaled: false },
  boost: { label: 'Boost', unit: 'kPa', side: 'most', scaled: false },
  lambda: { label: 'λ at full load', unit: 'λ', side: 'most', scaled: false, underLoad: true },
  richLambda: { label: 'λ, richest', unit: 'λ', side: 'least', scaled: false, underLoad: true, channel: 'lambda' },
  smokeLambda: { label: 'λ, smoke', unit: 'λ', side: 'least', scaled: false, underLoad: true, channel: 'lambda' },
  knockRetard: { label: 'Knock retard', unit: '°', side: 'most', scaled: false, underLoad: true },
  ignitionAdvance: { label: 'Ignition advance', unit: '°', side: 'most', scaled: false },
  injectorDuty: { label: 'Injector duty', unit: '%', side: 'most', scaled: false, underLoad: true },
  fuelPressure: { label: 'Fuel pressure', unit: 'kPa', side: 'least', scaled: false, underLoad: true },
  fuelTrim: { label: 'Fuel trim, either way', unit: '%', side: 'most', scaled: false },
  railPressure: { label: 'Rail pressure', unit: 'MPa', side: 'least', scaled: false, underLoad: true },
  oilPressure: { label: 'Oil pressure', unit: 'kPa', side: 'least', scaled: false, underLoad: true },
  crankcasePressure: { label: 'Crankcase pressure', unit: 'kPa', side: 'most', scaled: false },
  batteryVoltage: { label: 'Battery', unit: 'V', side: 'least', scaled: false },
  intakeTemperature: { label: 'Intake temperature', unit: '°C', side: 'most', scaled: false },
  coolantTemperature: { label: 'Coolant temperature', unit: '°C', side: 'most', scaled: false },
  oilTemperature: { label: 'Oil temperature', unit: '°C', side: 'most', scaled: false },
  exhaustTemperature: { label: 'Exhaust temperature', unit: '°C', side: 'most', scaled: false },
} as const satisfies Record<string, LimitDescription>;
export type LimitQuantity = keyof typeof limitQuantities;
export const limitQuantityNames = Object.keys(limitQuantities) as [LimitQuantity, ...LimitQuantity[]];

/** What a torque or power limit was quoted on: the crankshaft, or this dyno's reading at the wheels. */
export const limitScales = ['crank', 'wheels'] as const;
export type LimitScale = (typeof limitScales)[number];

export interface Limit {
  quantity: LimitQuantity;
  value: number;
  scale: LimitScale | null;
}

/**
 * How far a reading is from a limit, in its unit: positive while it is kept.
 * A torque or power limit on the crank's scale is compared with a reading at
 * the wheels only where the loss is given.
 *
 * @param lossShare of the crank's figure that does not reach the wheels
 * @returns undefined where the scales differ and the loss is not known
 */
export function headroom(limit: Limit, reading: number, lossShare?: number): number | undefined {
  const { side, scaled } = limitQuantities[limit.quantity];
  const crank = scaled && limit.scale === 'crank';
  if (crank && lossShare === undefined) return undefined;
  const value = crank && lossShare !== undefined ? limit.value * (1 - lossShare) : limit.value;
  return side === 'most' ? value - reading : reading - value;
}

/** A λ probe is good to about this share: a reading on the limit is not beyond it. */
export const probeShare = 0.01;

/** How far beyond a limit a reading must lie before it is told from one on it, in the limit's unit. */
export function readingTolerance({ quantity, value }: Limit): number {
  return limitChannel(quantity) === 'lambda' ? probeShare * Math.abs(value) : 0;
}

/** A job's limits as they are written, those of quantities that are known. */
export function knownLimits(
  written: readonly { quantity: string; value: number; scale: LimitScale | null }[],
): Limit[] {
  return written.flatMap(({ quantity, value, scale }) =>
    Object.hasOwn(limitQuantities, quantity) ? [{ quantity: quantity as LimitQuantity, value, scale }] : [],
  );
}

const described = (quantity: LimitQuantity): LimitDescription => limitQuantities[quantity];

/** The channel that a limit's quantity is read from. */
export const limitChannel = (quantity: LimitQuantity): string => described(quantity).channel ?? quantity;

/** Whether a limit is watched only while the engine is under load. */
export const onlyUnderLoad = (quantity: LimitQuantity): boolean => described(quantity).underLoad ?? false;
