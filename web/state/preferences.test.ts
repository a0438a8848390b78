import { expect, test } from '@jest/globals';
import { mergedPreferences } from './preferences.ts';

test('what a browser kept is taken as far as it can be understood', () => {
  expect(
    mergedPreferences({ powerUnit: 'hp', standard: 'home-made', cautionsRead: true, colour: 'red' }),
  ).toMatchObject({
    powerUnit: 'hp',
    standard: 'sae-j1349',
    cautionsRead: true,
    largeChannels: ['lambda', 'intakeTemperature'],
  });
  for (const rubbish of [null, undefined, 'x', 7, [], { largeChannels: ['one'] }]) {
    expect(mergedPreferences(rubbish)).toMatchObject({
      powerUnit: 'kW',
      largeChannels: ['lambda', 'intakeTemperature'],
    });
  }
});
