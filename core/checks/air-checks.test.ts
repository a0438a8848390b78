import { stationPressureHpa } from '../air/air.ts';
import { written } from '../sentence/sentence.ts';
import { describe, expect, test } from '@jest/globals';
import { airStale, pressureLooksSeaLevel, standardUnsuited } from './air-checks.ts';
import { startTemperature } from './start-temperature.ts';

const air = (pressureHpa: number) => ({ temperatureC: 20, pressureHpa, relativeHumidityPct: 50 });

test.each([
  [undefined, undefined],
  [10 * 60, undefined],
  [25 * 60, 'note'],
  [3 * 3600, 'mind'],
] as const)('air read %s s before the run: %s', (ageS, severity) => {
  expect(airStale(ageS, 'sae-j1349')?.severity).toBe(severity);
  expect(airStale(ageS, 'none')).toBeUndefined();
});

describe('a sea-level pressure at a high shop', () => {
  test.each([
    [1600, 1015, true],
    [1600, 838, false],
    [1600, 860, false],
    [600, 1018, true],
    [600, 945, false],
    [600, 960, false],
    [100, 1035, false],
    [undefined, 1015, false],
  ])('%s m, %d hPa: %s', (altitudeM, pressureHpa, looks) => {
    const found = pressureLooksSeaLevel(air(pressureHpa), altitudeM);
    expect(found !== undefined).toBe(looks);
    if (found) expect(found).toMatchObject({ severity: 'stop', unit: 'hPa' });
  });

  test('names the pressure that was probably there', () => {
    expect(written(pressureLooksSeaLevel(air(1013.25), 1600)!.message)).toMatch(/about 83[45] hPa/);
  });
});

test.each([
  ['sae-j1349', 'compression', true],
  ['iso-1585-si', 'compression', true],
  ['iso-1585-ci', 'compression', false],
  ['iso-1585-ci', 'spark', true],
  ['sae-j1349', 'spark', false],
  ['din-70020', 'compression', false],
  ['sae-j1349', undefined, false],
  ['din-70020', 'electric', true],
  ['none', 'electric', false],
] as const)('%s on an engine with %s ignition is marked: %s', (standard, ignition, marked) => {
  expect(standardUnsuited(standard, ignition) !== undefined).toBe(marked);
});

test('a start outside the baseline’s window says how far, and by what', () => {
  const window = { oilTemperature: { fromC: 82, toC: 90 }, intakeTemperature: { fromC: 20, toC: 26 } };
  expect(startTemperature({ oilTemperature: 88, intakeTemperature: 25 }, window)).toBeUndefined();
  const hot = startTemperature({ oilTemperature: 91, intakeTemperature: 38 }, window)!;
  expect(hot).toMatchObject({ id: 'start-temperature', severity: 'mind', figure: 14, unit: 'K' });
  expect(written(hot.message)).toMatch(/intake at 38 °C, 14 K hotter/);
  expect(written(startTemperature({ oilTemperature: 60 }, window)!.message)).toMatch(/24 K colder/);
  expect(startTemperature({ coolantTemperature: 60 }, window)).toBeUndefined();
});

test('a pressure counts as the sea-level one from three fifths of the way to it, and from what weather explains', () => {
  const looks = (altitudeM: number, aboveHpa: number) =>
    pressureLooksSeaLevel(air(stationPressureHpa(1013.25, altitudeM) + aboveHpa), altitudeM) !== undefined;
  const toSeaHpa = 1013.25 - stationPressureHpa(1013.25, 1600);
  expect(toSeaHpa).toBeCloseTo(178, 0);
  expect([looks(1600, 0.61 * toSeaHpa), looks(1600, 0.59 * toSeaHpa)]).toEqual([true, false]);
  // At 300 m three fifths are 21 hPa, which weather explains.
  expect([looks(300, 28), looks(300, 26), looks(299, 40)]).toEqual([true, false, false]);
});
