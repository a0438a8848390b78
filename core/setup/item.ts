import type { FuelMultipliers } from './fuel-table.ts';
import { say, written, type Quantity, type Sentence } from '../sentence/sentence.ts';

/** Items that can be computed with: their unit (`λ` for a mixture, which has none), and how a step of one is said. */
export const numericItems = {
  ignition: { label: 'ignition', unit: '°', digits: 1 },
  boost: { label: 'boost', unit: 'kPa', digits: 0 },
  'lambda-target': { label: 'λ target', unit: 'λ', digits: 2 },
  'intake-cam': { label: 'intake cam', unit: '°', digits: 1 },
  'exhaust-cam': { label: 'exhaust cam', unit: '°', digits: 1 },
  'injection-end': { label: 'injection end', unit: '°', digits: 0 },
  'intake-length': { label: 'intake length', unit: 'mm', digits: 0 },
  'tyre-pressure': { label: 'tyre pressure', unit: 'kPa', digits: 0 },
  'plug-gap': { label: 'plug gap', unit: 'mm', digits: 2 },
} as const;
export type NumericKind = keyof typeof numericItems;
export const numericKinds = Object.keys(numericItems) as [NumericKind, ...NumericKind[]];

/** Items that have a name or a state. */
export const namedItems = {
  'tune-file': 'tune file',
  'fuel-table': 'fuel table',
  fuel: 'fuel',
  'part-fitted': 'fitted',
  'part-removed': 'removed',
  tyres: 'tyres',
  gear: 'gear',
  filter: 'filter',
  fan: 'fan',
  'charge-cooling': 'charge cooling',
  bonnet: 'bonnet',
  'air-conditioning': 'air conditioning',
  words: '',
} as const;
export type NamedKind = keyof typeof namedItems;
export const namedKinds = Object.keys(namedItems) as [NamedKind, ...NamedKind[]];

/**
 * A numeric change, in the unit of its thing: by so much, or to a value.
 * `aboveRpm` where it holds from an engine speed on.
 */
interface Step {
  by?: number | undefined;
  to?: number | undefined;
  aboveRpm?: number | undefined;
}
export type NumericItem = ({ kind: NumericKind } | { kind: 'own'; name: string; unit: string }) & Step;

/** What a numeric item concerns and how its figure is written: a kind of our own, or one that a person named. */
export function numericOf(item: NumericItem): { label: string; unit: string; digits: number } {
  return item.kind === 'own' ? { label: item.name, unit: item.unit, digits: 3 } : numericItems[item.kind];
}

/** The thing that a numeric item concerns: steps of one thing add up. */
export function keyOf(item: NumericItem): string {
  const what = item.kind === 'own' ? `own:${item.name.toLowerCase()} ${item.unit.toLowerCase()}`.trim() : item.kind;
  return `${what}/${item.aboveRpm ?? 0}`;
}

export interface NamedItem {
  kind: NamedKind;
  name: string;
  /** Of a fuel table: what the fuel of each cell was multiplied by. */
  table?: FuelMultipliers | undefined;
}

/** One thing that a step changed. */
export type SetupItem = NumericItem | NamedItem;

export function isNumeric(item: SetupItem): item is NumericItem {
  return item.kind === 'own' || Object.hasOwn(numericItems, item.kind);
}

/** An item as it is called where nobody in particular reads it. */
export const itemWords = (item: SetupItem): string => written(itemSentence(item));

/** An item as people say it: `ignition +1.5° above 4,000 rpm`. */
export function itemSentence(item: SetupItem): Sentence {
  if (!isNumeric(item)) {
    if (item.kind === 'words') return item.name;
    if (item.kind === 'part-fitted' || item.kind === 'part-removed') return `${item.name} ${namedItems[item.kind]}`;
    return `${namedItems[item.kind]} ${item.name}`;
  }
  const { label, unit, digits } = numericOf(item);
  const value = item.by ?? item.to ?? 0;
  const shown: Quantity = { value: Math.abs(value), unit, digits, as: 'step' };
  const sign = value < 0 ? '−' : item.by === undefined ? '' : '+';
  const where = item.aboveRpm ? ` above ${item.aboveRpm.toLocaleString('en-GB')} rpm` : '';
  return say`${label} ${sign}${shown}${where}`;
}
