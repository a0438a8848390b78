import { fixedDigits } from './fixed-digits.ts';
import { convert, powerUnits, torqueUnits, type UnitName } from './units.ts';

/** What a person may choose to be told each kind of quantity in; the first is how it is kept. */
export const unitChoices = {
  power: powerUnits,
  torque: torqueUnits,
  pressure: ['kPa', 'bar', 'psi'],
  airPressure: ['hPa', 'inHg'],
  temperature: ['°C', '°F'],
  speed: ['km/h', 'mph'],
  volume: ['L', 'US gal', 'imp gal'],
  mixture: ['λ', 'AFR'],
} as const;
export type UnitKind = keyof typeof unitChoices;
export const unitKinds = Object.keys(unitChoices) as UnitKind[];
/** A person's choice of units. */
export type Units = { readonly [Kind in UnitKind]: (typeof unitChoices)[Kind][number] };

/** As everything is kept. */
export const keptUnits: Units = {
  power: 'kW',
  torque: 'N·m',
  pressure: 'kPa',
  airPressure: 'hPa',
  temperature: '°C',
  speed: 'km/h',
  volume: 'L',
  mixture: 'λ',
};

/** Choices that go together, by the words they are offered with. */
export const unitSets: readonly { name: string; units: Units }[] = [
  { name: 'Metric', units: keptUnits },
  {
    name: 'US',
    units: {
      power: 'hp',
      torque: 'lb·ft',
      pressure: 'psi',
      airPressure: 'inHg',
      temperature: '°F',
      speed: 'mph',
      volume: 'US gal',
      mixture: 'AFR',
    },
  },
  {
    name: 'UK',
    units: {
      ...keptUnits,
      power: 'hp',
      torque: 'lb·ft',
      pressure: 'psi',
      speed: 'mph',
      volume: 'imp gal',
      mixture: 'AFR',
    },
  },
];

/** Litres in a gallon. */
const litresIn = { L: 1, 'US gal': 3.785411784, 'imp gal': 4.54609 } as const;

/** How a quantity that is kept in one unit is told to a person. */
export interface Told {
  /** Empty for what has none. */
  unit: string;
  of: (kept: number) => number;
  /** What somebody typed, as it is kept. */
  kept: (told: number) => number;
}

/**
 * How a quantity is told.
 *
 * @param unit that it is kept in: one of core/recording/channels.ts and of limits; `λ` for a mixture, `K` for a
 *   difference of temperatures; any other is told as it is
 * @param stoichiometric air–fuel ratio of the fuel that was burnt: without it a mixture stays λ
 */
export function toldIn(unit: string, units: Units, stoichiometric?: number): Told {
  switch (unit) {
    case 'λ':
      return units.mixture === 'AFR' && stoichiometric !== undefined ? scaled('AFR', stoichiometric) : asKept('');
    case '–':
      return asKept('');
    case 'kW':
      return converted('kW', units.power);
    case 'N·m':
      return converted('N·m', units.torque);
    case 'kPa':
      return converted('kPa', units.pressure);
    case 'MPa':
      return converted('MPa', units.pressure === 'kPa' ? 'MPa' : units.pressure);
    case 'hPa':
      return converted('hPa', units.airPressure);
    case '°C':
      return converted('°C', units.temperature);
    case 'K':
      return units.temperature === '°F' ? scaled('°F', 9 / 5) : asKept('K');
    case 'km/h':
      return converted('km/h', units.speed);
    case 'L':
      return scaled(units.volume, 1 / litresIn[units.volume]);
    case 'L/h':
      return scaled(`${units.volume}/h`, 1 / litresIn[units.volume]);
    default:
      return asKept(unit);
  }
}

/** The unit of a difference of two quantities that are kept in a unit: of two temperatures it has no zero of its own. */
export const differenceUnit = (unit: string): string => (unit === '°C' ? 'K' : unit);

const asKept = (unit: string): Told => ({ unit, of: (kept) => kept, kept: (told) => told });

const scaled = (unit: string, factor: number): Told => ({
  unit,
  of: (kept) => kept * factor,
  kept: (told) => told / factor,
});

const converted = (from: UnitName, to: UnitName): Told =>
  from === to
    ? asKept(from)
    : { unit: to, of: (kept) => convert(kept, from, to), kept: (told) => convert(told, to, from) };

/** Digits after the point that a figure in a unit is worth; a function where its size decides. */
const usualDigits: Readonly<Record<string, number | ((size: number) => number)>> = {
  // A ratio, or something counted that has no unit.
  '': (size) => (size < 3 ? 2 : size < 100 ? 1 : 0),
  AFR: 1,
  rpm: 0,
  // A crankcase's pressure is small: tenths of a kilopascal matter there, and nowhere else of a pressure.
  kPa: (size) => (size < 10 ? 1 : 0),
  bar: (size) => (size < 0.1 ? 3 : size < 20 ? 2 : 0),
  psi: (size) => (size < 1.45 ? 2 : size < 300 ? 1 : 0),
  MPa: 1,
  '×': 0,
  hPa: 0,
  inHg: 2,
  '°C': 0,
  '°F': 0,
  K: 0,
  'km/h': 0,
  mph: 0,
  L: (size) => (Math.abs(size - Math.round(size)) < 0.05 ? 0 : 1),
  'US gal': 1,
  'imp gal': 1,
  '°': 1,
  '°BTDC': 1,
  V: 1,
  ms: 2,
  s: 2,
  kW: (size) => (size < 20 ? 1 : 0),
};

/** Digits after the point that a figure is worth in its unit. */
export function digitsIn(value: number, unit: string, fewest = 0): number {
  const known = usualDigits[unit] ?? ((size: number) => (size < 10 ? 1 : 0));
  return Math.max(fewest, typeof known === 'number' ? known : known(Math.abs(value)));
}

/** A figure with the digits that it is worth in its unit, a true minus, thousands set off; no sign where it rounds to nothing. */
export function figureIn(value: number, unit: string, fewestDigits = 0): string {
  if (!Number.isFinite(value)) return '–';
  return fixedDigits(value, digitsIn(value, unit, fewestDigits));
}

/** A figure and its unit: a sign that belongs to the figure stands without a space. */
export function withUnit(figure: string, unit: string, space = ' '): string {
  if (unit === '') return figure;
  return unit === '°' ? `${figure}°` : `${figure}${space}${unit}`;
}
