import { expect, test } from '@jest/globals';
import { missedBandWords } from '../wording/moment-words.ts';
import { missedBand } from './missed-band.ts';

const bands = [
  { name: 'pull-in', fromRpm: 2000, toRpm: 4000 },
  { name: 'top', fromRpm: 4000, toRpm: 6500 },
];
const unplanned = { fromRpm: null, toRpm: null };

test('a plan that begins above a band, or ends below one, is told before the pull', () => {
  const above = missedBand(bands, { planned: { fromRpm: 2280, toRpm: null } });
  expect(above).toMatchObject({ name: 'pull-in', by: 'plan', beginsRpm: 2280 });
  expect(missedBandWords(above!)).toBe('As planned it begins above your band pull-in: 2,280 instead of 2,000 rpm.');
  const below = missedBand(bands, { planned: { fromRpm: 1800, toRpm: 6000 } });
  expect(missedBandWords(below!)).toBe('As planned it ends below your band top: 6,000 instead of 6,500 rpm.');
});

test('the speed that the pull is waited for at counts more than the last run', () => {
  const ahead = { planned: unplanned, last: [2300, 6600] } as const;
  expect(missedBandWords(missedBand(bands, ahead)!)).toBe(
    'The last run begins above your band pull-in: 2,300 instead of 2,000 rpm.',
  );
  expect(missedBand(bands, { ...ahead, waitingRpm: 1850 })).toBeUndefined();
  expect(missedBandWords(missedBand(bands, { ...ahead, waitingRpm: 2450 })!)).toBe(
    'Now it begins above your band pull-in: 2,450 instead of 2,000 rpm.',
  );
});

test('nothing is told without bands, or where they are covered', () => {
  expect(missedBand([], { planned: { fromRpm: 3000, toRpm: null } })).toBeUndefined();
  expect(missedBand(bands, { planned: unplanned })).toBeUndefined();
  expect(missedBand(bands, { planned: unplanned, last: [1900, 6600] })).toBeUndefined();
});
