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
