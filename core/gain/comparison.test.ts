import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { bandMean } from '../curve/band-mean.ts';
import { gridBetween } from '../curve/grid.ts';
import { peakOf } from '../curve/peak.ts';
import { meanDifference, pooledSpread } from '../statistics/mean-difference.ts';
import { studentT, twoSidedProbability } from '../statistics/student-t.ts';
import { chance, normal } from '../testing/chance.ts';
import { testDyno } from '../testing/test-car.ts';
import { bandDifference, compareRuns, differenceAt, type RunCurve } from './comparison.ts';
import { unlikeRespects, type RunConditions } from './like-for-like.ts';
import { gainSentence } from './sentence.ts';
import { verdictOn } from './verdict.ts';

const runOf = (values: (rpm: number) => number, from = 2000, to = 6000): RunCurve => {
  const engineSpeedRpm = gridBetween(from, to, 25);
  return { engineSpeedRpm, values: engineSpeedRpm.map(values) };
};
const power = (rpm: number) => 20 + rpm / 60;

describe('statistics', () => {
  test.each([
    [4, 2.776445],
    [2, 4.302653],
    [1, 12.706205],
    [10, 2.228139],
    [1000, 1.962339],
  ])('t of 95 %% at %d degrees of freedom', (df, t) => {
    expect(studentT(0.95, df)).toBeCloseTo(t, 5);
    expect(twoSidedProbability(t, df)).toBeCloseTo(0.05, 6);
  });

  test('three against three: the least significant difference is 2.27 spreads', () => {
    const { halfWidth, spread, df } = meanDifference([1, 2, 3], [5, 6, 7]);
    expect(df).toBe(4);
    expect(halfWidth / spread).toBeCloseTo(2.267, 3);
  });

  test('a side with one run borrows the spread of the others', () => {
    expect(meanDifference([3], [1]).halfWidth).toBeNaN();
    expect(
      meanDifference(
        [3],
        [1],
        [
          [5, 6],
          [7, 7.5],
        ],
      ).df,
    ).toBe(2);
    expect(pooledSpread([[1, 3], [10]]).spread).toBeCloseTo(Math.SQRT2, 10);
  });

  test('95 % intervals cover the truth 93 to 97 % of the time', () => {
    const noise = normal(chance(11));
    const draw = (mean: number) => [0, 0, 0].map(() => mean + noise());
    let covered = 0;
    for (let trial = 0; trial < 2000; trial++) {
      const { difference, halfWidth } = meanDifference(draw(1), draw(0));
      if (Math.abs(difference - 1) <= halfWidth) covered++;
    }
    expect(covered / 2000).toBeGreaterThan(0.93);
    expect(covered / 2000).toBeLessThan(0.97);
  });
});

describe('curves', () => {
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
});

describe('comparison', () => {
  const offsets = [-0.4, 0.1, 0.3];
  const baseline = offsets.map((offset) => runOf((rpm) => power(rpm) + offset));
  const test3 = offsets.map((offset) => runOf((rpm) => power(rpm) + 2 + offset, 2200, 5900));

  test('a gain of 2 kW is found over the common range, with its interval', () => {
    const found = compareRuns(test3, baseline);
    expect([found.fromRpm, found.toRpm]).toEqual([2200, 5900]);
    expect(found.commonRange.difference).toBeCloseTo(2, 9);
    expect(found.gain.every((gain) => Math.abs(gain - 2) < 1e-9)).toBe(true);
    expect(found.gainHalfWidth[0]).toBeCloseTo(found.commonRange.halfWidth, 9);
    expect(verdictOn(found.commonRange)).toBe('gain');
    expect(verdictOn(compareRuns(baseline, test3).commonRange)).toBe('loss');
    expect(verdictOn(compareRuns(baseline, baseline).commonRange)).toBe('within repeatability');
    expect(verdictOn(compareRuns([test3[0]!], [baseline[0]!]).commonRange)).toBe('unknown');
  });

  test('figures at a speed and over a band, and none where a run does not reach', () => {
    expect(differenceAt([test3, baseline], 4010)!.difference).toBeCloseTo(2, 9);
    expect(differenceAt([test3, baseline], 2100)).toBeUndefined();
    expect(bandDifference([test3, baseline], 3000, 4000)!.difference).toBeCloseTo(2, 9);
    expect(bandDifference([test3, baseline], 2000, 4000)).toBeUndefined();
  });

  test('nothing to compare is a sentence', () => {
    expect(() => compareRuns([], baseline)).toThrow(/no counted run/);
    expect(() => compareRuns([runOf(power, 7000, 8000)], baseline)).toThrow(/share no range/);
  });
});

describe('the sentence', () => {
  const say = (test: number[], base: number[], withheld = false) =>
    gainSentence({
      test: 'B',
      baseline: 'A',
      difference: meanDifference(test, base),
      fromRpm: 2204,
      toRpm: 6800,
      unit: 'kW',
      withheld,
    })
      .map((phrase) => phrase.text)
      .join('');

  test.each([
    [
      [102, 102.2, 102.4],
      [100, 100.2, 100.4],
      /^B makes 2\.0 ± 0\.5 kW more than A on average from 2,200 to 6,800 rpm\.$/,
    ],
    [[98, 98.2, 98.4], [100, 100.2, 100.4], /^B makes 2\.0 ± 0\.5 kW less than A/],
    [[100.1, 100.2, 100.6], [100, 100.2, 100.4], /^B is within repeatability of A .*: \+0\.1 ± 0\.5 kW/],
    [[102], [100], /2\.0 kW more than A .* one run each/],
  ])('%j against %j', (test, base, sentence) => {
    expect(say(test, base)).toMatch(sentence);
  });

  test('runs that are not like for like get figures and no verdict', () => {
    expect(say([102, 102.2], [100, 100.1], true)).toMatch(/\+2\.0 ± .* not like for like: no verdict/);
    expect(say([102], [100], true)).not.toContain('NaN');
  });
});

describe('like for like', () => {
  const conditions = (over: Partial<RunConditions> = {}): RunConditions => ({
    label: 'A1',
    dyno: testDyno,
    gear: '4th',
    hasAir: true,
    startedAt: new Date('2026-05-04T10:00:00Z'),
    ...over,
  });

  test('alike runs raise nothing', () => {
    expect(unlikeRespects([conditions()], [conditions({ startedAt: new Date('2026-05-04T12:00:00Z') })])).toEqual([]);
  });

  test.each<[string, Partial<RunConditions>]>([
    ['other-dyno', { dyno: { ...testDyno, inertiaKgM2: 51 } }],
    ['other-gear', { gear: '3rd' }],
    ['air-missing', { hasAir: false }],
    ['remount', { startedAt: new Date('2026-05-05T10:00:00Z') }],
  ])('%s', (id, over) => {
    expect(unlikeRespects([conditions(over)], [conditions()]).map((finding) => finding.id)).toEqual([id]);
  });
});
