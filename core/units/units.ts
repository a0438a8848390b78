/**
 * Units at the edge of the program. Inside everything is kept in each
 * channel's own unit (see `channels/channels.ts`); this table converts.
 * Constants are the rounded ones of docs/methods.md.
 */
interface Unit {
  dimension: string;
  /** Multiplies a value in this unit to give the dimension's base unit. */
  scale: number;
  /** Added after scaling (temperatures only). */
  offset?: number;
}

const table = {
  s: { dimension: 'time', scale: 1 },
  ms: { dimension: 'time', scale: 1e-3 },
  us: { dimension: 'time', scale: 1e-6 },
  min: { dimension: 'time', scale: 60 },
  'rad/s': { dimension: 'angular speed', scale: 1 },
  rpm: { dimension: 'angular speed', scale: (2 * Math.PI) / 60 },
  'm/s': { dimension: 'speed', scale: 1 },
  'km/h': { dimension: 'speed', scale: 1 / 3.6 },
  mph: { dimension: 'speed', scale: 0.44704 },
  N·m: { dimension: 'torque', scale: 1 },
  lb·ft: { dimension: 'torque', scale: 1.3558179483 },
  W: { dimension: 'power', scale: 1 },
  kW: { dimension: 'power', scale: 1000 },
  hp: { dimension: 'power', scale: 745.699872 },
  PS: { dimension: 'power', scale: 735.49875 },
  Pa: { dimension: 'pressure', scale: 1 },
  hPa: { dimension: 'pressure', scale: 100 },
  kPa: { dimension: 'pressure', scale: 1000 },
  MPa: { dimension: 'pressure', scale: 1e6 },
  bar: { dimension: 'pressure', scale: 1e5 },
  psi: { dimension: 'pressure', scale: 6894.757293 },
  inHg: { dimension: 'pressure', scale: 3386.389 },
  K: { dimension: 'temperature', scale: 1 },
  '°C': { dimension: 'temperature', scale: 1, offset: 273.15 },
  '°F': { dimension: 'temperature', scale: 5 / 9, offset: 273.15 - (32 * 5) / 9 },
  '%': { dimension: 'share', scale: 0.01 },
  '%vol': { dimension: 'volume share', scale: 0.01 },
  '–': { dimension: 'number', scale: 1 },
  '°': { dimension: 'angle', scale: 1 },
  '°BTDC': { dimension: 'ignition angle', scale: 1 },
  V: { dimension: 'voltage', scale: 1 },
  'g/s': { dimension: 'mass flow', scale: 1 },
} satisfies Record<string, Unit>;

export type UnitName = keyof typeof table;

/** Other ways in which people write the same unit. */
const spellings: Record<string, UnitName> = {
  sec: 's',
  seconds: 's',
  µs: 'us',
  μs: 'us',
  '1/min': 'rpm',
  'rev/min': 'rpm',
  'r/min': 'rpm',
  'rad/sec': 'rad/s',
  kph: 'km/h',
  kmh: 'km/h',
  Nm: 'N·m',
  'N m': 'N·m',
  'N*m': 'N·m',
  'N.m': 'N·m',
  'lb-ft': 'lb·ft',
  'lb.ft': 'lb·ft',
  'lb*ft': 'lb·ft',
  mbar: 'hPa',
  C: '°C',
  degC: '°C',
  F: '°F',
  degF: '°F',
  deg: '°',
  '-': '–',
  '1': '–',
  '': '–',
  pct: '%',
};

/** The unit meant by a spelling, or undefined when it is not known. Case matters only where it must. */
export function unitFromSpelling(spelling: string): UnitName | undefined {
  const text = spelling.trim();
  if (Object.hasOwn(table, text)) return text as UnitName;
  if (Object.hasOwn(spellings, text)) return spellings[text];
  const folded = text.toLowerCase();
  // MPa and mPa differ by case alone, so pressures are never matched loosely.
  if (folded === 'mpa') return undefined;
  const loose = [...Object.keys(table), ...Object.keys(spellings)].find((name) => name.toLowerCase() === folded);
  if (loose === undefined) return undefined;
  return Object.hasOwn(spellings, loose) ? spellings[loose] : (loose as UnitName);
}

/** What a unit measures, as a word: `pressure`, `torque`. */
export function dimensionOf(unit: UnitName): string {
  return table[unit].dimension;
}

/**
 * Converts one value.
 * @throws RangeError when the two units do not measure the same thing.
 */
export function convert(value: number, from: UnitName, to: UnitName): number {
  if (from === to) return value;
  const source: Unit = table[from];
  const target: Unit = table[to];
  if (source.dimension !== target.dimension) {
    throw new RangeError(`${from} measures ${source.dimension}, ${to} measures ${target.dimension}.`);
  }
  return (value * source.scale + (source.offset ?? 0) - (target.offset ?? 0)) / target.scale;
}

export const powerUnits = ['kW', 'hp', 'PS'] as const;
export const torqueUnits = ['N·m', 'lb·ft'] as const;
export type PowerUnit = (typeof powerUnits)[number];
export type TorqueUnit = (typeof torqueUnits)[number];

export const rpmPerRadS = 60 / (2 * Math.PI);
