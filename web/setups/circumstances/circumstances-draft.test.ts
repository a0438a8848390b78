import { keptUnits } from '../../../core/units/told-units.ts';
import { ownUnits } from '../../units/own-units.ts';
import { describe, expect, test } from '@jest/globals';
import type { Run } from '../../../contract/job/records.ts';
import { testDyno } from '../../../core/testing/test-car.ts';
import { changeIn, draftOf } from './circumstances-draft.ts';

const run = (over: Partial<Run> = {}) =>
  ({
    startedAt: '2026-05-04T09:00:00.000Z',
    gear: '4th',
    air: { temperatureC: 20.04, pressureHpa: 1000.26, relativeHumidityPct: 50 },
    airStated: null,
    startTemperatures: { oilTemperature: 85 },
    fuel: null,
    tyres: null,
    tyrePressureKpa: null,
    fan: null,
    bonnet: null,
    loadMode: null,
    remounted: null,
    dyno: testDyno,
    engineToDrumRatio: null,
    given: {},
    ...over,
  }) as unknown as Run;
const stated = {
  temperatureC: 20,
  pressure: { at: 'sea level', hPa: 1013, elevationM: 400 },
  moisture: { by: 'wet bulb', celsius: 14, ventilated: true },
} as const;
const own = ownUnits(keptUnits);
const changed = (one: Run, over: object) => changeIn({ ...draftOf(one, undefined, own), ...over }, one, undefined, own);

test('what is not touched is not sent, however it was rounded for the field', () => {
  expect(changed(run(), {})).toEqual({});
  expect(changed(run({ airStated: stated }), {})).toEqual({});
  expect(changed(run(), { gear: ' ', tyres: ' slicks ' })).toEqual({ gear: null, tyres: 'slicks' });
});

test.each([
  [{ elevationM: '500' }, { ...stated, pressure: { ...stated.pressure, elevationM: 500 } }],
  [{ ventilated: false }, { ...stated, moisture: { ...stated.moisture, ventilated: false } }],
  [
    { pressureAt: 'station', pressureHpa: '965,5' },
    { ...stated, pressure: { at: 'station', hPa: 965.5 } },
  ],
  [{ temperatureC: '', pressureHpa: '', moisture: '' }, null],
])('of the air each field alone is a change: %j', (over, air) => {
  expect(changed(run({ airStated: stated }), over)).toEqual({ air });
});

test.each([
  [{ moisture: '' }, /takes a temperature, a pressure and a moisture/],
  [{ temperatureC: 'warm' }, /air is no number/],
  [{ pressureAt: 'sea level', elevationM: '' }, /height of the place/],
  [{ starts: { oilTemperature: 'hot' } }, /start temperature is no number/],
  [{ startedAt: '' }, /date and the time/],
])('%j is told in a sentence', (over, sentence) => {
  expect(changed(run(), over)).toMatch(sentence);
});

describe('in Fahrenheit, inches of mercury and psi', () => {
  const us = ownUnits({ ...keptUnits, temperature: '°F', airPressure: 'inHg', pressure: 'psi' });
  const filled = (one: Run, over: object) => changeIn({ ...draftOf(one, undefined, us), ...over }, one, undefined, us);

  test('the form shows what is kept', () => {
    const draft = draftOf(run({ tyrePressureKpa: 240 }), undefined, us);
    expect(draft).toMatchObject({
      temperatureC: '68.07',
      pressureHpa: '29.54',
      tyrePressureKpa: '34.8',
      starts: { oilTemperature: '185' },
    });
  });

  test('what is not touched is not sent, and one start leaves the others as they are', () => {
    const one = run({ tyrePressureKpa: 240, startTemperatures: { oilTemperature: 85.3, coolantTemperature: 88 } });
    expect(filled(one, {})).toEqual({});
    const { startTemperatures } = filled(one, {
      starts: { ...draftOf(one, undefined, us).starts, coolantTemperature: '194' },
    }) as { startTemperatures: Record<string, number> };
    expect(startTemperatures.coolantTemperature).toBeCloseTo(90, 6);
    expect(startTemperatures.oilTemperature).toBeCloseTo(85.3, 2);
  });

  test('what was typed is kept in the units of the record', () => {
    const air = { temperatureC: '77', pressureHpa: '29.53', moisture: '40' };
    expect(filled(run(), air)).toMatchObject({
      air: {
        temperatureC: 25,
        pressure: { at: 'station', hPa: expect.closeTo(1000, 0) },
        moisture: { by: 'humidity', pct: 40 },
      },
    });
    expect((filled(run(), { tyrePressureKpa: '35' }) as { tyrePressureKpa: number }).tyrePressureKpa).toBeCloseTo(
      241.3,
      1,
    );
  });
});
