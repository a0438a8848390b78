import { expect, test } from '@jest/globals';
import { airFile, dynoFile } from './machine-and-air.ts';

test('losses may be left out of a dyno, inertia may not', () => {
  expect(dynoFile.parse({ kind: 'hub', inertiaKgM2: 2 }).parasitic).toEqual({
    aNm: 0,
    bNmPerRadS: 0,
    cNmPerRadS2: 0,
  });
  expect(dynoFile.safeParse({ kind: 'hub' }).success).toBe(false);
});

test('air in the wrong unit is noticed', () => {
  expect(airFile.safeParse({ temperatureC: 24, pressureHpa: 29.9, relativeHumidityPct: 45 }).success).toBe(false);
  expect(airFile.safeParse({ temperatureC: 297, pressureHpa: 1008, relativeHumidityPct: 45 }).success).toBe(false);
  expect(airFile.safeParse({ temperatureC: 24, pressureHpa: 1008, relativeHumidityPct: 145 }).success).toBe(false);
});
