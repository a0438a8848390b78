import { describe, expect, test } from '@jest/globals';
import { laneGroups } from './lane-groups.ts';
import { firstLanes, isFar, tellingGroups, type ToldChannels } from './telling-lanes.ts';

const logged = [
  'rollerSpeed',
  'throttle',
  'knockRetard',
  'ignitionAdvance',
  'lambdaTarget',
  'lambda',
  'boost',
  'oilPressure',
  'batteryVoltage',
  'intakeTemperature',
  'own probe',
];
const nothing: ToldChannels = { logged, changes: [], events: [], limits: [], extremes: {} };
const ids = (told: ToldChannels) => tellingGroups(told).map(({ id }) => id);

describe('groups of channels', () => {
  test('what is read together makes one, and every channel is in exactly one', () => {
    const groups = laneGroups(logged);
    expect(groups.find(({ id }) => id === 'lambda')?.channels).toEqual(['lambda', 'lambdaTarget']);
    expect(groups.find(({ id }) => id === 'ignitionAdvance')?.channels).toEqual(['ignitionAdvance', 'knockRetard']);
    expect(groups.flatMap(({ channels }) => channels).sort()).toEqual([...logged].sort());
  });

  test('a partner without the channel that it belongs to stands by itself; sides of the drum stand together', () => {
    const groups = laneGroups(['boostTarget', 'hubSpeedLeft', 'hubSpeedRight', 'time']);
    expect(groups.map(({ channels }) => channels)).toEqual([['boostTarget'], ['hubSpeedLeft', 'hubSpeedRight']]);
  });
});

describe('which tell most', () => {
  test('where nothing does, the usual order of reading, and the drum last', () => {
    expect(ids(nothing).slice(0, 3)).toEqual(['lambda', 'boost', 'ignitionAdvance']);
    expect(ids(nothing).at(-1)).toBe('rollerSpeed');
  });

  test('what a stop rests on comes before a limit that is near, and that before a difference', () => {
    const told: ToldChannels = {
      ...nothing,
      events: [{ severity: 'stop', channels: ['oilPressure', 'intakeTemperature'] }],
      limits: [{ quantity: 'boost', value: 120, scale: null }],
      extremes: { boost: { least: 0, most: 115 } },
      changes: [{ channel: 'batteryVoltage', unit: 'V', inSpreads: 40, difference: -1.2 }],
    };
    expect(ids(told).slice(0, 4)).toEqual(['oilPressure', 'intakeTemperature', 'boost', 'batteryVoltage']);
  });

  test('a limit far away says nothing; one that is broken says most of the limits', () => {
    const limits = [
      { quantity: 'boost', value: 120, scale: null },
      { quantity: 'batteryVoltage', value: 12, scale: null },
    ] as const;
    const told = {
      ...nothing,
      limits,
      extremes: { boost: { least: 0, most: 60 }, batteryVoltage: { least: 11.5, most: 14 } },
    };
    expect(ids(told)[0]).toBe('batteryVoltage');
    expect(tellingGroups(told).find(({ id }) => id === 'boost')!.weight).toBeLessThan(1);
  });

  test('a sure difference that is too small to matter is not far', () => {
    expect(isFar({ channel: 'coolantTemperature', unit: '°C', inSpreads: 9, difference: 0.4 })).toBe(false);
    expect(isFar({ channel: 'coolantTemperature', unit: '°C', inSpreads: 9, difference: 6 })).toBe(true);
    expect(isFar({ channel: 'coolantTemperature', unit: '°C', inSpreads: 1, difference: 6 })).toBe(false);
    expect(isFar({ channel: 'coolantTemperature', unit: '°C', inSpreads: NaN, difference: 6 })).toBe(false);
  });

  test('the opened lanes stand in reading order, pinned ones among them whatever they tell', () => {
    const told = { ...nothing, events: [{ severity: 'mind', channels: ['batteryVoltage'] }] } as const;
    expect(firstLanes(told, [], 3)).toEqual(['lambda', 'boost', 'batteryVoltage']);
    expect(firstLanes(told, ['own probe'], 3)).toEqual(['lambda', 'batteryVoltage', 'own probe']);
    expect(firstLanes(told, ['knockRetard'], 1)).toEqual(['ignitionAdvance']);
    expect(firstLanes(told, ['never logged'], 2)).toHaveLength(2);
  });
});
