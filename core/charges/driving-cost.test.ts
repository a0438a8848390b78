import { expect, test } from '@jest/globals';
import { drivingCost, drivingCostWords, fuelPriceOf } from './driving-cost.ts';

const fuel = { before: 5, after: 4.7, difference: -0.3, halfWidth: 0.1, claim: 'less' as const };

test('fuel for distance becomes money, with its interval and its judgement', () => {
  expect(drivingCost(fuel, 2)).toEqual({ before: 10, after: 9.4, difference: -0.6, halfWidth: 0.2, claim: 'less' });
  expect(drivingCostWords(drivingCost(fuel, 2), '€')).toBe(
    'Fuel for 100 km: 10.00 € before, 9.40 € after; −0.60 ± 0.20 €: less, shown.',
  );
  expect(drivingCostWords(drivingCost({ ...fuel, halfWidth: NaN, claim: null }, 2), '€')).toContain(
    '−0.60 €: no difference is shown.',
  );
});

test('the price of a litre is that of what the engine burns', () => {
  const prices = [
    { name: 'Dyno', per: 'dyno hour' as const },
    { name: 'Diesel', per: 'litre' as const },
    { name: 'E85', per: 'litre' as const },
  ];
  expect(fuelPriceOf(prices, 'compression')!.name).toBe('Diesel');
  expect(fuelPriceOf(prices, 'spark')!.name).toBe('E85');
  expect(fuelPriceOf(prices.slice(2), 'compression')!.name).toBe('E85');
  expect(fuelPriceOf(prices.slice(0, 1), null)).toBeUndefined();
  // What rounds to nothing has no sign.
  expect(drivingCostWords(drivingCost({ ...fuel, difference: -0.001, claim: null }, 2), '€')).toContain(
    '; 0.00 ± 0.20 €',
  );
});

test('a change pays for itself only where a saving is shown, and by the ends of its interval', () => {
  const { paysAfterKm } = drivingCost(fuel, 2, 120);
  expect(paysAfterKm!.middle).toBeCloseTo(20_000, 6);
  expect(paysAfterKm!.least).toBeCloseTo(15_000, 6);
  expect(paysAfterKm!.most).toBeCloseTo(30_000, 6);
  expect(drivingCostWords(drivingCost(fuel, 2, 120), '€')).toContain(
    'driven in after 20,000 km (15,000 km to 30,000 km)',
  );
  expect(drivingCost({ ...fuel, claim: null }, 2, 120).paysAfterKm).toBeUndefined();
  expect(drivingCost({ ...fuel, halfWidth: 0.4 }, 2, 120).paysAfterKm).toBeUndefined();
  expect(drivingCost(fuel, 2).paysAfterKm).toBeUndefined();
});
