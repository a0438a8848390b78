import { expect, test } from '@jest/globals';
import { calibrations, forecastOutcome, type Forecast } from './forecast.ts';

const rpm = Float64Array.from({ length: 101 }, (_, at) => 2000 + 50 * at);
const curve = (values: (at: number) => number) => ({ engineSpeedRpm: rpm, values: rpm.map(values) });
const figures = { power: curve((at) => 100 - ((at - 6000) / 400) ** 2), torque: curve((at) => 180 - at / 100) };
const boost = curve((at) => at / 100);
const forecast = (over: Partial<Forecast> = {}): Forecast => ({
  who: 'Ann',
  quantity: 'peak power',
  fromRpm: null,
  toRpm: null,
  low: 98,
  high: 102,
  ...over,
});

test('each quantity is read off the mean of the setup, and only where its runs cover it', () => {
  expect(forecastOutcome(forecast(), figures)).toBeCloseTo(100, 3);
  expect(forecastOutcome(forecast({ quantity: 'peak torque' }), figures)).toBeCloseTo(160, 6);
  expect(forecastOutcome(forecast({ quantity: 'power at', fromRpm: 5600 }), figures)).toBeCloseTo(99, 6);
  expect(forecastOutcome(forecast({ quantity: 'torque at', fromRpm: 3000 }), figures)).toBeCloseTo(150, 6);
  expect(forecastOutcome(forecast({ quantity: 'mean power', fromRpm: 5600, toRpm: 6400 }), figures)).toBeCloseTo(
    100 - 1 / 3,
    2,
  );
  expect(forecastOutcome(forecast({ quantity: 'mean torque', fromRpm: 3000, toRpm: 5000 }), figures)).toBeCloseTo(
    140,
    6,
  );
  expect(forecastOutcome(forecast({ quantity: 'boost at', fromRpm: 4000 }), { ...figures, boost })).toBeCloseTo(40, 6);
  expect(forecastOutcome(forecast({ quantity: 'peak boost' }), figures)).toBeUndefined();
  expect(forecastOutcome(forecast({ quantity: 'power at', fromRpm: 7500 }), figures)).toBeUndefined();
  expect(forecastOutcome(forecast({ quantity: 'mean power', fromRpm: 1000, toRpm: 3000 }), figures)).toBeUndefined();
});

test('who is well calibrated: least distance first, too high told with its sign, ranges that held counted', () => {
  const scored = [
    { who: 'Ann', low: 98, high: 102, actual: 100 },
    { who: 'Ann', low: 90, high: 94, actual: 100 },
    { who: 'Bo', low: 120, high: 120, actual: 100 },
  ];
  expect(calibrations(scored)).toEqual([
    { who: 'Ann', forecasts: 2, ranges: 2, held: 1, meanMiss: expect.closeTo(0.04, 6), bias: expect.closeTo(-0.04, 6) },
    { who: 'Bo', forecasts: 1, ranges: 0, held: 0, meanMiss: expect.closeTo(0.2, 6), bias: expect.closeTo(0.2, 6) },
  ]);
  expect(calibrations([])).toEqual([]);
});
