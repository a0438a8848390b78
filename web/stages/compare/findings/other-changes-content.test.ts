import { expect, test } from '@jest/globals';
import type { ChannelChange } from '../../../../core/comparison/channel-changes.ts';
import { meanDifference } from '../../../../core/statistics/mean-difference.ts';
import { otherChangeLines } from './other-changes-content.ts';

const change = (test: number[], baseline: number[], over: Partial<ChannelChange> = {}): ChannelChange => {
  const mean = meanDifference(test, baseline);
  return { channel: 'oilPressure', unit: 'kPa', fromRpm: 2000, toRpm: 6000, mean, greatest: { rpm: 5200, difference: mean }, inSpreads: 1, ...over }; // prettier-ignore
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
