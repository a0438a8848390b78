import { expect, test } from '@jest/globals';
import { written } from '../sentence/sentence.ts';
import { keptUnits } from '../units/told-units.ts';
import type { Target } from '../targets/target.ts';
import { askedWords, targetName } from './target-words.ts';

const target = (over: Partial<Target> = {}): Target => ({
  id: 1,
  quantity: 'peak power',
  fromRpm: null,
  toRpm: null,
  value: 96.5,
  scale: 'wheels',
  standard: null,
  ...over,
});

test('a target is told as it was typed: what is missing to it is told to the tenth', () => {
  expect(written(targetName(target()))).toBe('peak power at least 96.5 kW at the wheels');
  expect(written(targetName(target({ value: 100, scale: 'crank' })))).toBe('peak power at least 100 kW at the crank');
  const inHp = { ...keptUnits, power: 'hp' as const };
  expect(written(targetName(target({ value: 96.94 })), inHp)).toBe('peak power at least 130 hp at the wheels');
  expect(written(targetName(target({ standard: 'iso-1585-ci' })))).toBe(
    'peak power at least 96.5 kW at the wheels, ISO 1585, diesel',
  );
  expect(written(targetName(target({ quantity: 'peak boost', scale: null, value: 60 })))).toBe(
    'peak boost at least 60 kPa',
  );
});

test('where a figure is asked for is said as far as it is known', () => {
  const said = (over: Partial<Target>) => written(askedWords(target(over)));
  expect(said({ quantity: 'torque at', fromRpm: 4000 })).toBe('torque at 4,000 rpm');
  expect(said({ quantity: 'mean power', fromRpm: 3000, toRpm: 4500 })).toBe('mean power from 3,000 to 4,500 rpm');
  expect(said({ quantity: 'mean power', toRpm: 4500 })).toBe('mean power up to 4,500 rpm');
  expect(said({ quantity: 'mean power', fromRpm: 3000 })).toBe('mean power from 3,000 rpm on');
  expect(said({ quantity: 'mean power' })).toBe('mean power');
});
