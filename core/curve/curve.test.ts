import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { bandMean } from './band-mean.ts';
import { gridBetween } from './grid.ts';
import { peakOf } from './peak.ts';

const runOf = (values: (rpm: number) => number, from = 2000, to = 6000) => {
  const engineSpeedRpm = gridBetween(from, to, 25);
  return { engineSpeedRpm, values: engineSpeedRpm.map(values) };
};
const power = (rpm: number) => 20 + rpm / 60;

test('a band mean of a line is its middle, whatever the band', () => {
  const run = runOf(power);
  fc.assert(
    fc.property(
      fc.double({ min: 2000, max: 3900, noNaN: true }),
      fc.double({ min: 10, max: 2000, noNaN: true }),
      (from, width) => {
        expect(bandMean(run.engineSpeedRpm, run.values, from, from + width)).toBeCloseTo(power(from + width / 2), 8);
      },
    ),
  );
  expect(bandMean(run.engineSpeedRpm, run.values, 1900, 3000)).toBeNaN();
});

test('a peak is found between grid points, and at an edge said to be there', () => {
  const run = runOf((rpm) => 100 - ((rpm - 5012) / 100) ** 2);
  expect(peakOf(run.engineSpeedRpm, run.values)).toMatchObject({ atEdge: false });
  expect(peakOf(run.engineSpeedRpm, run.values).rpm).toBeCloseTo(5012, 3);
  const climbing = runOf(power);
  expect(peakOf(climbing.engineSpeedRpm, climbing.values)).toMatchObject({ rpm: 6000, atEdge: 'end' });
});

test('a grid holds both ends', () => {
  expect([...gridBetween(1999, 2101, 50)]).toEqual([2000, 2050, 2100]);
  expect([...gridBetween(2000, 2100, 50)]).toEqual([2000, 2050, 2100]);
  expect([...gridBetween(2001, 2049, 50)]).toEqual([]);
});

test('a peak between grid points has the height of the parabola there, and at either edge that of the edge', () => {
  const run = runOf((rpm) => 100 - ((rpm - 5012) / 100) ** 2);
  expect(peakOf(run.engineSpeedRpm, run.values).value).toBeCloseTo(100, 9);
  // 8, 10, 9 at 0, 1, 2: y = 8 + 3.5 x − 1.5 x², highest at 7/6.
  const [rpm, values] = [Float64Array.of(0, 1, 2), Float64Array.of(8, 10, 9)];
  const between = peakOf(rpm, values);
  expect(between.value).toBeCloseTo(8 + 3.5 ** 2 / 6, 12);
  expect(between.rpm).toBeCloseTo(7 / 6, 12);
  expect(between.atEdge).toBe(false);
  expect(peakOf(rpm, Float64Array.of(10, 9, 8))).toEqual({ value: 10, rpm: 0, atEdge: 'start' });
  expect(peakOf(rpm, Float64Array.of(8, 9, 10))).toEqual({ value: 10, rpm: 2, atEdge: 'end' });
  // A flat top has no bend to sharpen it by.
  expect(peakOf(Float64Array.of(0, 1, 2, 3), Float64Array.of(1, 5, 5, 1)).value).toBeCloseTo(5.5, 9);
});

test('a band mean is the area of what lies between its ends, to the very end of the curve and no farther', () => {
  const rpm = Float64Array.of(1000, 1100, 1400, 1500);
  const values = Float64Array.of(0, 10, 40, 0);
  const whole = (0.5 * 10 * 100 + 25 * 300 + 20 * 100) / 500;
  expect(bandMean(rpm, values, 1000, 1500)).toBeCloseTo(whole, 12);
  // From the middle of the first stretch to the middle of the last one.
  expect(bandMean(rpm, values, 1050, 1450)).toBeCloseTo((7.5 * 50 + 25 * 300 + 30 * 50) / 400, 12);
  // Within one stretch, and between two points.
  expect(bandMean(rpm, values, 1200, 1300)).toBeCloseTo(25, 12);
  expect(bandMean(rpm, values, 1100, 1400)).toBeCloseTo(25, 12);
  expect(bandMean(rpm, values, 1400, 1500)).toBeCloseTo(20, 12);
  for (const [from, to] of [
    [999, 1500],
    [1000, 1501],
    [1200, 1200],
    [1300, 1200],
  ] as const)
    expect(bandMean(rpm, values, from, to)).toBeNaN();
});
