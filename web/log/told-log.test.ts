import { describe, expect, test } from '@jest/globals';
import { keptUnits } from '../../core/units/told-units.ts';
import { toldLabel, toldLog } from './told-log.ts';

const series = (...values: number[]) => ({ x: Float64Array.from(values.keys()), values: Float64Array.from(values) });
const channel = (name: string, unit: string, ...values: number[]) => ({
  name,
  unit,
  speed: series(...values),
  time: series(...values),
  least: Math.min(...values),
  most: Math.max(...values),
});
const log = {
  startS: 0,
  endS: 1,
  channels: [
    channel('lambda', '–', 0.8, 1),
    channel('oilTemperature', '°C', 80, 100),
    channel('sidePod', '–', 1, 2),
    channel('railPressure', 'MPa', 100, 160),
  ],
};

describe('a log in somebody’s units', () => {
  const units = { ...keptUnits, mixture: 'AFR', temperature: '°F', pressure: 'bar' } as const;

  test('its readings, least and greatest are told, λ by what was burnt, and what is kept stays as it is', () => {
    const [lambda, oil, pod, rail] = toldLog(log, units, 14).channels;
    expect(lambda).toMatchObject({ unit: 'AFR', least: expect.closeTo(11.2, 9), most: expect.closeTo(14, 9) });
    expect(Array.from(lambda!.speed.values)).toEqual([expect.closeTo(11.2, 9), expect.closeTo(14, 9)]);
    expect(oil).toMatchObject({ unit: '°F', least: expect.closeTo(176, 9), most: expect.closeTo(212, 9) });
    expect(rail).toMatchObject({ unit: 'bar', most: 1600 });
    // A channel of one's own is no mixture, whatever its unit.
    expect(pod).toMatchObject({ unit: '', most: 2 });
    expect(log.channels[1]!.most).toBe(100);
  });

  test('as everything is kept nothing is computed', () => {
    expect(toldLog(log, keptUnits, 14.7).channels[1]!.speed).toBe(log.channels[1]!.speed);
    expect(toldLog(log, keptUnits, 14.7).channels[0]).toMatchObject({ unit: '', most: 1 });
  });

  test('a mixture is called by what it is told in', () => {
    expect(toldLabel('lambdaTarget', units)).toBe('Air–fuel ratio target');
    expect(toldLabel('lambdaTarget', keptUnits)).toBe('λ target');
  });
});
