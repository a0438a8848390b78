import { expect, test } from '@jest/globals';
import type { SetupItem } from './item.ts';
import { setupWords } from './setup-words.ts';

const setup = (id: number, parentId: number | null, change: string, ...items: SetupItem[]) => ({
  id,
  parentId,
  change,
  items,
});
const boost = { kind: 'boost', by: 12 } as const;

test('steps of one thing are told by where they go from and to', () => {
  const setups = [
    setup(1, null, 'As arrived'),
    setup(2, 1, 'Boost +12 kPa', boost),
    setup(3, 2, 'Boost +12 kPa', boost),
    setup(4, 3, 'boost +12 kPa', boost),
  ];
  expect(setups.map((one) => setupWords(setups, one))).toEqual([
    'As arrived',
    'Boost +12 kPa',
    'Boost +12 → +24 kPa',
    'Boost +24 → +36 kPa',
  ]);
});

test('a step from a level that is known, and one that goes back', () => {
  const to = setup(2, 1, 'boost 80 kPa', { kind: 'boost', to: 80 });
  const setups = [setup(1, null, 'As arrived'), to, setup(3, 2, 'Boost −10 kPa', { kind: 'boost', by: -10 })];
  expect(setupWords(setups, setups[2]!)).toBe('Boost 80 → 70 kPa');
  const above = { kind: 'ignition', by: 1, aboveRpm: 4000 } as const;
  const ignition = [
    setup(1, null, 'As arrived'),
    setup(2, 1, 'Ignition +1° above 4,000', above),
    setup(3, 2, 'Ignition +1° above 4,000', above),
  ];
  expect(setupWords(ignition, ignition[2]!)).toBe('Ignition +1 → +2° above 4,000');
});

test('own words, several things at once and other things stay as they were written', () => {
  const setups = [
    setup(1, null, 'As arrived', boost),
    setup(2, 1, 'the wild one', boost),
    setup(3, 2, 'Boost +12 kPa', boost, { kind: 'ignition', by: 1 }),
    setup(4, 3, 'Fuel Club 100', { kind: 'fuel', name: 'Club 100' }),
  ];
  expect(setups.map((one) => setupWords(setups, one))).toEqual(setups.map(({ change }) => change));
});
