import { keptUnits } from '../../../../core/units/told-units.ts';
import { expect, test } from '@jest/globals';
import type { ChannelChange } from '../../../../core/comparison/channel-changes.ts';
import { meanDifference } from '../../../../core/statistics/mean-difference.ts';
import { otherChangeLines } from './other-changes-content.ts';

const change = (test: number[], baseline: number[], over: Partial<ChannelChange> = {}): ChannelChange => {
  const mean = meanDifference(test, baseline);
  return {
    channel: 'oilPressure',
    unit: 'kPa',
    fromRpm: 2000,
    toRpm: 6000,
    mean,
    greatest: { rpm: 5200, difference: mean },
    inSpreads: 1,
    ...over,
  };
};

test('a row is written with the digits that its interval leaves', () => {
  expect(otherChangeLines([change([410.12, 412.3, 411], [401, 402.2, 403])])[0]).toEqual({
    channel: 'oilPressure',
    label: 'Oil pressure, kPa',
    against: '402.1',
    test: '411.1',
    difference: '+9.1',
    halfWidth: '±2.4',
    greatest: '+9.1 ±2.4 at 5,200 rpm',
  });
  const [lambda] = otherChangeLines([change([0.8512, 0.853], [0.8812, 0.8801], { channel: 'lambda', unit: '–' })]);
  expect(lambda).toMatchObject({ label: 'λ', difference: '−0.029', halfWidth: '±0.005' });
});

test('without a repeated setup there is a difference and no interval', () => {
  const [line] = otherChangeLines([change([411], [402])]);
  expect(line).toMatchObject({ difference: '+9', halfWidth: '', greatest: '+9 at 5,200 rpm' });
  expect(otherChangeLines([change([0], [0])])[0]).toMatchObject({ difference: '0', against: '0' });
});

test('what nobody named keeps its name and needs no unit', () => {
  expect(otherChangeLines([change([1, 2], [1, 2], { channel: 'sidePod', unit: '' })])[0]!.label).toBe('sidePod');
});

test('in the person’s units a difference of temperatures has no zero of its own', () => {
  const oil = change([90, 90.2], [100, 100.2], { channel: 'oilTemperature', unit: '°C' });
  expect(otherChangeLines([oil], { ...keptUnits, temperature: '°F' })[0]).toMatchObject({
    label: 'Oil, °F',
    test: '194.2',
    against: '212.2',
    difference: '−18.0',
  });
});

test('a mixture is told by the ratio of the fuel, and stays λ where there is no one fuel', () => {
  const lambda = change([0.85, 0.852], [0.88, 0.881], { channel: 'lambda', unit: '–' });
  const afr = { ...keptUnits, mixture: 'AFR' } as const;
  expect(otherChangeLines([lambda], afr, 14.7)[0]).toMatchObject({ label: 'Air–fuel ratio', difference: '−0.43' });
  expect(otherChangeLines([lambda], afr)[0]).toMatchObject({ label: 'λ', difference: '−0.030' });
});

test('a difference that its interval tells from nothing reads so', () => {
  const mean = { ...meanDifference([500, 502], [490, 492]), difference: 4.96, halfWidth: 4.84 };
  const [line] = otherChangeLines([change([0], [0], { mean, greatest: { rpm: 5200, difference: mean } })]);
  expect(line).toMatchObject({ difference: '+5.0', halfWidth: '±4.8', greatest: '+5.0 ±4.8 at 5,200 rpm' });
});
