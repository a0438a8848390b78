import { burnsFuel, type EngineKind } from '../engine/engine-kind.ts';
import type { JudgedFigure } from '../judgement/kind-judgement.ts';
import { moneyWords, type Price } from './charges.ts';

/** What driving costs before and after, for 100 km, at one price of fuel; nothing else than fuel is in it. */
export interface DrivingCost {
  before: number;
  after: number;
  /** After less before, and the half width of its 95 % interval; NaN where nothing tells one. */
  difference: number;
  halfWidth: number;
  claim: JudgedFigure['claim'];
  /** Distance after which a saving that is shown has paid for what was spent, km: as measured, and by the ends of its interval. */
  paysAfterKm?: { middle: number; least: number; most: number };
}

/**
 * The cost of the fuel for distance that two setups' cruises show: their judgement is that of the fuel itself.
 * @param fuel of two setups' cruises, L/100 km
 * @param spent what the change came to, in the currency of the price; undefined where nobody charged it
 */
export function drivingCost(
  {
    before,
    after,
    difference,
    halfWidth,
    claim,
  }: Pick<JudgedFigure, 'before' | 'after' | 'difference' | 'halfWidth' | 'claim'>,
  pricePerLitre: number,
  spent?: number,
): DrivingCost {
  const saved = -difference * pricePerLitre;
  const half = halfWidth * pricePerLitre;
  const pays = claim === 'less' && spent !== undefined && spent > 0 && saved - half > 0;
  const kmFor = (perHundred: number) => (100 * (spent ?? 0)) / perHundred;
  return {
    before: before * pricePerLitre,
    after: after * pricePerLitre,
    difference: difference * pricePerLitre,
    halfWidth: half,
    claim,
    ...(pays && { paysAfterKm: { middle: kmFor(saved), least: kmFor(saved + half), most: kmFor(saved - half) } }),
  };
}

/** The price of a litre of what an engine burns: of several the one whose name says diesel, or does not. */
export function fuelPriceOf<Listed extends Pick<Price, 'name' | 'per'>>(
  prices: readonly Listed[],
  ignition: EngineKind | null,
): Listed | undefined {
  if (!burnsFuel(ignition)) return undefined;
  const litres = prices.filter(({ per }) => per === 'litre');
  return litres.find(({ name }) => /diesel/i.test(name) === (ignition === 'compression')) ?? litres[0];
}

const thousands = (km: number) => `${(Math.round(km / 100) * 100).toLocaleString('en-GB')} km`;

/** The cost in words, such as “8.20 € before, 8.60 € after for 100 km: +0.40 ± 0.20 €, shown.” */
export function drivingCostWords(
  { before, after, difference, halfWidth, claim, paysAfterKm }: DrivingCost,
  currency: string,
): string {
  const size = moneyWords(Math.abs(difference), '').trim();
  const sign = Math.abs(difference) < 0.005 ? '' : difference < 0 ? '−' : '+';
  const interval = Number.isFinite(halfWidth) ? ` ± ${moneyWords(halfWidth, currency)}` : ` ${currency}`;
  const change = `${sign}${size}${interval}`;
  const verdict = claim === null ? 'no difference is shown' : claim === 'less' ? 'less, shown' : 'more, shown';
  const pays = paysAfterKm
    ? ` What the change came to is driven in after ${thousands(paysAfterKm.middle)} (${thousands(paysAfterKm.least)} to ${thousands(paysAfterKm.most)}) at this speed and load.`
    : '';
  return `Fuel for 100 km: ${moneyWords(before, currency)} before, ${moneyWords(after, currency)} after; ${change}: ${verdict}.${pays}`;
}
