import { expect, test } from '@jest/globals';
import { continued } from './continued.ts';

const speeds = (from: number, to: number) =>
  Float64Array.from({ length: (to - from) / 50 + 1 }, (_, at) => from + 50 * at);
const curve = (from: number, to: number, at: (rpm: number) => number) => {
  const engineSpeedRpm = speeds(from, to);
  return { engineSpeedRpm, values: engineSpeedRpm.map(at) };
};
const shape = (rpm: number) => 90 * Math.sin(rpm / 4000);

test('a curve that was cut short goes on in the other’s shape, at its own level', () => {
  const found = continued(
    curve(2000, 5500, (rpm) => 1.05 * shape(rpm)),
    curve(2000, 6500, shape),
  )!;
  expect(found.engineSpeedRpm[0]).toBe(5500);
  expect(found.engineSpeedRpm.at(-1)).toBe(6500);
  found.engineSpeedRpm.forEach((rpm, at) => expect(found.values[at]).toBeCloseTo(1.05 * shape(rpm), 9));
});

test('nothing is continued that was not cut short, that goes further, or that shares nothing with the other', () => {
  const other = curve(2000, 6500, shape);
  expect(continued(curve(2000, 6450, shape), other)).toBeUndefined();
  expect(continued(curve(2000, 7000, shape), other)).toBeUndefined();
  expect(continued(curve(1000, 1800, shape), other)).toBeUndefined();
  expect(continued({ engineSpeedRpm: new Float64Array(), values: new Float64Array() }, other)).toBeUndefined();
});
