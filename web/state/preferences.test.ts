import { expect, test } from '@jest/globals';
import { keptUnits } from '../../core/units/told-units.ts';
import { mergedPreferences } from './preferences.ts';

test('what a browser kept is taken as far as it can be understood', () => {
  expect(
    mergedPreferences({
      units: { ...keptUnits, power: 'hp' },
      standard: 'home-made',
      cautionsRead: true,
      colour: 'red',
    }),
  ).toMatchObject({
    units: { power: 'hp', pressure: 'kPa' },
    standard: 'sae-j1349',
    cautionsRead: true,
    largeChannels: ['lambda', 'intakeTemperature'],
  });
  for (const rubbish of [
    null,
    undefined,
    'x',
    7,
    [],
    { units: { power: 'candles' } },
    { powerUnit: 'candles' },
    { largeChannels: ['one'] },
  ]) {
    expect(mergedPreferences(rubbish)).toMatchObject({
      units: keptUnits,
      largeChannels: ['lambda', 'intakeTemperature'],
    });
  }
});

test('the units of power and torque that a browser kept before there were more are kept on', () => {
  expect(mergedPreferences({ powerUnit: 'PS', torqueUnit: 'lb·ft' }).units).toEqual({
    ...keptUnits,
    power: 'PS',
    torque: 'lb·ft',
  });
});
