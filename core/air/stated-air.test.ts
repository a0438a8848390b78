import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { saturationPressureHpa, vapourPressureHpa } from './air.ts';
import { airOf, statedOf, type StatedAir } from './stated-air.ts';

const stated = (over: Partial<StatedAir> = {}): StatedAir => ({
  temperatureC: 24,
  pressure: { at: 'station', hPa: 985 },
  moisture: { by: 'humidity', pct: 45 },
  ...over,
});

test('a sea-level figure is taken down to the place', () => {
  const { pressureHpa } = airOf(stated({ pressure: { at: 'sea level', hPa: 1013.25, elevationM: 1600 } }));
  // The standard atmosphere at 1,600 m.
  expect(pressureHpa).toBeCloseTo(835, 0);
  expect(airOf(stated({ pressure: { at: 'sea level', hPa: 1010, elevationM: 0 } })).pressureHpa).toBe(1010);
});

test('a dew point and a wet bulb say the same as the humidity that they follow from', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0, max: 40, noNaN: true }),
      fc.double({ min: 5, max: 99, noNaN: true }),
      (temperatureC, pct) => {
        const vapour = vapourPressureHpa({ temperatureC, pressureHpa: 985, relativeHumidityPct: pct });
        // Both by bisection, so that nothing is held against its own formula turned round.
        const where = (of: (celsius: number) => number) => {
          let [low, high] = [temperatureC - 60, temperatureC];
          for (let step = 0; step < 60; step++) {
            const middle = (low + high) / 2;
            if (of(middle) < vapour) low = middle;
            else high = middle;
          }
          return low;
        };
        const dew = where(saturationPressureHpa);
        expect(
          airOf(stated({ temperatureC, moisture: { by: 'dew point', celsius: dew } })).relativeHumidityPct,
        ).toBeCloseTo(pct, 4);
        const wet = where((celsius) => saturationPressureHpa(celsius) - 6.62e-4 * 985 * (temperatureC - celsius));
        expect(
          airOf(stated({ temperatureC, moisture: { by: 'wet bulb', celsius: wet, ventilated: true } }))
            .relativeHumidityPct,
        ).toBeCloseTo(pct, 4);
      },
    ),
  );
});

test('what an instrument read is stated as it was read', () => {
  const air = { temperatureC: 31, pressureHpa: 1002, relativeHumidityPct: 48 };
  expect(airOf(statedOf(air))).toEqual(air);
});

test('figures that cannot all be right are refused with both named', () => {
  expect(() => airOf(stated({ moisture: { by: 'dew point', celsius: 27 } }))).toThrow(
    /dew point lies above the air temperature of 24 °C/,
  );
  expect(() => airOf(stated({ moisture: { by: 'wet bulb', celsius: 30, ventilated: false } }))).toThrow(
    /wet bulb lies above/,
  );
  expect(() => airOf(stated({ temperatureC: 35, moisture: { by: 'wet bulb', celsius: 8, ventilated: true } }))).toThrow(
    /drier than dry/,
  );
});
