import { expect, test } from '@jest/globals';
import { gridBetween } from '../curve/grid.ts';
import { stretchesClearOfZero } from './clear-stretches.ts';
import type { GainBand } from './gain-band.ts';

/** A band with a gain of 3 kW where it is said to be, nothing elsewhere, and a standard error of 1. */
function bandOf(gains: readonly (readonly [fromRpm: number, toRpm: number, kw?: number])[]): GainBand {
  const engineSpeedRpm = gridBetween(2000, 6000, 25);
  const gain = engineSpeedRpm.map(
    (rpm) => gains.map(([from, to, kw = 3]) => (rpm >= from && rpm <= to ? kw : 0)).find((kw) => kw !== 0) ?? 0,
  );
  const flat = (value: number) => engineSpeedRpm.map(() => value);
  return {
    engineSpeedRpm,
    test: gain,
    baseline: flat(0),
    gain,
    standardError: flat(1),
    standardDeviation: flat(1),
    df: 10,
    kappaRad: 3,
    criticalT: 2.5,
    pointwiseT: 2,
    repeatability: flat(1),
  };
}
const rangesOf = (band: GainBand) =>
  stretchesClearOfZero(band).map(({ fromRpm, toRpm, verdict }) => [fromRpm, toRpm, verdict]);

test('a break of 75 rpm is bridged, one of 100 rpm parts two stretches', () => {
  expect(
    rangesOf(
      bandOf([
        [3000, 3400],
        [3475, 3900],
      ]),
    ),
  ).toEqual([[3000, 3900, 'gain']]);
  expect(
    rangesOf(
      bandOf([
        [3000, 3400],
        [3500, 3900],
      ]),
    ),
  ).toEqual([
    [3000, 3400, 'gain'],
    [3500, 3900, 'gain'],
  ]);
});

test('a gain and a loss are never one, and what is narrower than 100 rpm is none', () => {
  expect(
    rangesOf(
      bandOf([
        [3000, 3400],
        [3425, 3900, -3],
        [5000, 5075],
        [5500, 5600],
      ]),
    ),
  ).toEqual([
    [3000, 3400, 'gain'],
    [3425, 3900, 'loss'],
    [5500, 5600, 'gain'],
  ]);
});

test('each has its own mean, and none is told where there is no level to tell it by', () => {
  const [gain, loss] = stretchesClearOfZero(
    bandOf([
      [3000, 3400],
      [4000, 4400, -4],
    ]),
  );
  expect([gain!.mean, loss!.mean]).toEqual([expect.closeTo(3, 9), expect.closeTo(-4, 9)]);
  expect(stretchesClearOfZero(bandOf([[3000, 3400]]), NaN)).toEqual([]);
  expect(stretchesClearOfZero(bandOf([[3000, 3400]]), 3.1)).toEqual([]);
});
