import { describe, expect, test } from '@jest/globals';
import { gridBetween } from '../curve/grid.ts';
import { meanDifference } from '../statistics/mean-difference.ts';
import { bandDifference, compareRuns, differenceAt, type JudgedRange, type JudgedRanges } from './comparison.ts';
import type { RunCurve } from './run-curve.ts';
import { gainTable } from './gain-table.ts';
import { phrasesText, gainSentence } from '../wording/gain-sentence.ts';
import type { ClearStretch } from './clear-stretches.ts';
import type { Withheld } from '../judgement/pair-judgement.ts';
import type { Verdict } from './verdict.ts';

const runOf = (values: (rpm: number) => number, from = 2000, to = 6000): RunCurve => {
  const engineSpeedRpm = gridBetween(from, to, 25);
  return { engineSpeedRpm, values: engineSpeedRpm.map(values) };
};
const power = (rpm: number) => 20 + rpm / 60;

describe('comparison', () => {
  const offsets = [-0.4, 0.1, 0.3];
  const baseline = offsets.map((offset) => runOf((rpm) => power(rpm) + offset));
  const test3 = offsets.map((offset) => runOf((rpm) => power(rpm) + 2 + offset, 2200, 5900));

  test('a gain of 2 kW is found over the common range, with its interval', () => {
    const found = compareRuns(test3, baseline);
    expect([found.fromRpm, found.toRpm]).toEqual([2200, 5900]);
    expect(found.commonRange.difference).toBeCloseTo(2, 9);
    expect(found.gain.every((gain) => Math.abs(gain - 2) < 1e-9)).toBe(true);
    const verdict = (of: RunCurve[], against: RunCurve[]) => compareRuns(of, against).ranges[0]!.verdict;
    expect(verdict(test3, baseline)).toBe('gain');
    expect(verdict(baseline, test3)).toBe('loss');
    expect(verdict(baseline, baseline)).toBe('within repeatability');
    expect(verdict([test3[0]!], [baseline[0]!])).toBe('unknown');
    // Scatter that moves whole curves up and down turns nothing: the band is hardly wider than at one speed.
    expect(found.gainHalfWidth[0]! / found.pointHalfWidth[0]!).toBeLessThan(1.1);
    expect(found.clearStretches).toEqual([expect.objectContaining({ fromRpm: 2200, toRpm: 5900, verdict: 'gain' })]);
  });

  test('an interval wider than a fifth of the reading is not printed, and nothing is claimed', () => {
    const dirty = { share: 0.223, df: 8, from: 'learned' as const };
    const { ranges } = compareRuns([test3[0]!], [baseline[0]!], { spread: dirty });
    expect(ranges[0].verdict).toBe('unknown');
    expect(ranges[0].difference).toMatchObject({ halfWidth: NaN, smallestDetectable: NaN });
    expect(ranges[0].difference.difference).toBeCloseTo(2, 9);
    const clean = compareRuns([test3[0]!], [baseline[0]!], { spread: { ...dirty, share: 0.02 } }).ranges[0];
    expect(clean.difference.halfWidth).toBeGreaterThan(0);
  });

  test('figures at a speed and over a band, and none where a run does not reach', () => {
    expect(differenceAt([test3, baseline], 4010)!.difference).toBeCloseTo(2, 9);
    expect(differenceAt([test3, baseline], 2100)).toBeUndefined();
    expect(bandDifference([test3, baseline], 3000, 4000)!.difference).toBeCloseTo(2, 9);
    expect(bandDifference([test3, baseline], 2000, 4000)).toBeUndefined();
  });

  test('the largest difference is the largest loss where all are losses', () => {
    const lower = [0, 0.1].map((away) => runOf((rpm) => power(rpm) - (rpm > 4500 ? 4 : 1) + away));
    const { largest } = compareRuns(lower, baseline);
    expect(largest.gain).toBeLessThan(-3.5);
    expect(largest.rpm).toBeGreaterThan(4500);
  });

  test('where the baseline has a peak, the table says how much earlier it is reached', () => {
    const hill = (at: number, most: number) => (rpm: number) => most - ((rpm - at) / 400) ** 2;
    const runs = (at: number, most: number) => [0, 0.1, 0.2].map((away) => runOf((rpm) => hill(at, most)(rpm) + away));
    const [of, against] = [runs(4800, 104), runs(5000, 100)];
    const compared = compareRuns(of, against);
    const row = gainTable({ power: [of, against], torque: [of, against] }, compared, compared, undefined, false).find(
      ({ id }) => id === 'reaches-peak',
    )!;
    expect(row.difference).toBeLessThan(-800);
    expect(row.halfWidth).toBeGreaterThan(0);
  });

  test('nothing to compare is a sentence', () => {
    expect(() => compareRuns([], baseline)).toThrow(/no counted run/);
    expect(() => compareRuns([runOf(power, 7000, 8000)], baseline)).toThrow(/share no range/);
  });
});

describe('the sentence', () => {
  const judged = (test: number[], base: number[], verdict: Verdict, over: Partial<JudgedRange> = {}): JudgedRange => ({
    fromRpm: 2204,
    toRpm: 6800,
    difference: meanDifference(test, base),
    drift: undefined,
    verdict,
    ...over,
  });
  const stretch = (fromRpm: number, toRpm: number, mean: number): ClearStretch => ({
    fromRpm,
    toRpm,
    mean,
    halfWidth: 1,
    verdict: mean > 0 ? 'gain' : 'loss',
  });
  const say = (ranges: JudgedRanges, clearStretches: ClearStretch[] = [], withheld: Withheld[] = []) =>
    phrasesText(gainSentence({ test: 'B', baseline: 'A', ranges, clearStretches, unit: 'kW', withheld }));
  const more = judged([102, 102.2, 102.4], [100, 100.2, 100.4], 'gain');
  const less = judged([98, 98.2, 98.4], [100, 100.2, 100.4], 'loss');
  const same = judged([100.1, 100.2, 100.6], [100, 100.2, 100.4], 'within repeatability');

  test.each<[string, string, RegExp]>([
    ['a gain', say([more]), /^B makes 2\.0 ± 0\.5 kW more than A on average from 2,200 to 6,800 rpm\.$/],
    ['a loss', say([less]), /^B makes 2\.0 ± 0\.5 kW less than A/],
    ['nothing', say([same]), /^B is within repeatability of A from 2,200 to 6,800 rpm: \+0\.1 ± 0\.5 kW on average\.$/],
    [
      'no spread',
      say([judged([102], [100], 'unknown')], [], [{ id: 'no-spread' }]),
      /reads \+2\.0 kW against A .*; nothing can be said yet: too few runs .*\.$/,
    ],
    [
      'a gain in part of the range',
      say([more], [stretch(3000, 5600, 3)]),
      /, clearest 3\.0 ± 1\.0 kW more from 3,000 to 5,600 rpm; not shown below or above that\.$/,
    ],
    ['a gain all along', say([more], [stretch(2250, 6800, 2)]), /6,800 rpm\.$/],
    [
      'a gain that takes elsewhere',
      say([more], [stretch(2500, 4000, 4), stretch(6000, 6700, -2)]),
      /clearest 4\.0 .* and 2\.0 ± 1\.0 kW less from 6,000 to 6,700 rpm\.$/,
    ],
    [
      'a crossing',
      say([same], [stretch(2500, 3500, 3), stretch(5600, 6600, -3)]),
      /on average, but 3\.0 ± 1\.0 kW more from 2,500 to 3,500 rpm and 3\.0 ± 1\.0 kW less/,
    ],
    [
      'two bands',
      say([more, { ...same, fromRpm: 3000, toRpm: 4000 }]),
      /; within repeatability from 3,000 to 4,000 rpm/,
    ],
  ])('%s', (_, said, form) => {
    expect(said).toMatch(form);
  });

  test('a drift that might be the change is told, with the way out', () => {
    expect(say([{ ...more, verdict: 'drift suspected' }], [], [{ id: 'drift', perRunKw: 0.6 }])).toMatch(
      /^B reads \+2\.0 ± 0\.5 kW against A .*; a drift of \+0\.6 kW from run to run can look the same: return to A for a run\.$/,
    );
  });

  test('what else stands in the way of a claim is told with what settles it', () => {
    const open = (verdict: Verdict, reason: Withheld) => say([{ ...more, verdict }], [], [reason]);
    expect(open('plan not full', { id: 'plan-not-full', missing: { test: 2, baseline: 1 } })).toMatch(
      /; the plan is not full: 2 more runs of B and 1 more run of A\.$/,
    );
    expect(open('clear alone', { id: 'clear-alone' })).toMatch(
      /; clear on its own, but may be chance .*: another run of B or A\.$/,
    );
    expect(open('spread assumed', { id: 'spread-assumed' })).toMatch(/only assumed: another run of B or A\.$/);
  });

  test('a claimed difference that nobody would notice is said to be one', () => {
    expect(say([judged([100.11, 100.12, 100.13], [100, 100.01, 100.02], 'gain')])).toMatch(/, too small to matter\.$/);
  });

  test('runs that are not like for like get figures and no verdict', () => {
    const respect = { id: 'other-gear', severity: 'stop' as const, message: '', matters: '' };
    const unlike: Withheld[] = [{ id: 'not-alike', respect }];
    expect(say([more], [stretch(3000, 5600, 3)], unlike)).toMatch(
      /\+2\.0 ± .* not like for like, another gear: no verdict\.$/,
    );
    expect(say([judged([102], [100], 'unknown')], [], unlike)).not.toContain('NaN');
  });
});
