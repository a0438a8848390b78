import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import { BayAir } from './bay-air.ts';
import type { Device } from '../devices/device.ts';

const station = (startedAt?: string) =>
  ({
    hello: { startedAt },
    intake: { channels: ['airPressure', 'airTemperature', 'relativeHumidity'].map((name) => ({ name })) },
  }) as unknown as Device;
const row = (pressureHpa: number, temperatureC: number, relativeHumidityPct: number, timeS = 5) =>
  Float64Array.of(timeS, pressureHpa, temperatureC, relativeHumidityPct);

beforeEach(() => void jest.useFakeTimers({ now: new Date('2026-05-04T09:00:00Z') }));
afterEach(() => void jest.useRealTimers());

test('a whole reading is the air of the runs to come, for ten minutes; pages see it however old', () => {
  const air = new BayAir();
  expect(air.ofRun()).toEqual({ air: null, airTakenAt: null });
  expect(air.take(station(), row(1002, 24, 40))).toBe(true);
  const reading = { temperatureC: 24, pressureHpa: 1002, relativeHumidityPct: 40 };
  jest.advanceTimersByTime(9 * 60_000);
  expect(air.ofRun()).toEqual({ air: reading, airTakenAt: '2026-05-04T09:00:00.000Z' });
  jest.advanceTimersByTime(2 * 60_000);
  expect(air.ofRun()).toEqual({ air: null, airTakenAt: null });
  expect(air.state()).toEqual({ ...reading, takenAt: '2026-05-04T09:00:00.000Z' });
});

test('a reading with a hole tells nothing, and leaves what was told before', () => {
  const air = new BayAir();
  expect(air.take(station(), row(1002, NaN, 40))).toBe(false);
  expect(air.state()).toBeNull();
  air.take(station(), row(1002, 24, 40));
  expect(air.take(station(), row(NaN, 30, 40))).toBe(false);
  expect(air.state()).toMatchObject({ temperatureC: 24 });
});

test('what plays a day back gives that day’s moments', () => {
  const air = new BayAir();
  air.take(station('2026-03-01T08:00:00Z'), row(990, 12, 60, 90));
  expect(air.ofRun().airTakenAt).toBe('2026-03-01T08:01:30.000Z');
});
