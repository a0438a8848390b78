import { expect, test } from '@jest/globals';
import { simulatedExperiment } from '../testing/simulated-experiment.ts';
import { compareRuns } from '../comparison/comparison.ts';
import { phrasesText, gainSentence } from './gain-sentence.ts';
import { plainSentence } from './plain-sentence.ts';

const compared = (gain: number, runs = 4) => {
  const { test: tested, baseline } = simulatedExperiment({
    seed: 4,
    runs,
    otherRuns: runs,
    standardDeviation: 0.002,
    order: 'alternating',
    gain: () => gain,
  });
  return compareRuns(tested, baseline);
};
const said = (gain: number, runs?: number, withheld = false) =>
  plainSentence('B', 'A', compared(gain, runs), withheld, 'kW');

test('a gain and a loss are told by the ends of their interval, the smaller first', () => {
  const [, low, high] = /between (\d+\.\d) and (\d+\.\d) kW more/.exec(said(0.03))!;
  expect(Number(low)).toBeLessThan(Number(high));
  const { difference, halfWidth } = compared(0.03).ranges[0]!.difference;
  expect(Number(low)).toBeCloseTo(difference - halfWidth, 1);
  const loss = /between (\d+\.\d) and (\d+\.\d) kW less/.exec(said(-0.03))!;
  expect(Number(loss[1])).toBeLessThan(Number(loss[2]));
});

test('what cannot be told apart, one run each, and unlike runs have sentences of their own', () => {
  expect(said(0)).toMatch(/cannot be told apart.*less than \d\.\d kW/);
  expect(said(0.03, 1)).toMatch(/more runs are needed to be sure/);
  expect(said(0.03, 4, true)).toMatch(/no fair comparison/);
});

test('what cannot be told apart on average tells the parts in which it can', () => {
  const { test: tested, baseline } = simulatedExperiment({
    seed: 4,
    runs: 4,
    otherRuns: 4,
    standardDeviation: 0.002,
    order: 'alternating',
    gain: (rpm) => (rpm > 4500 ? 0.02 : -0.03),
  });
  const found = compareRuns(tested, baseline);
  const same = { ...found, ranges: [{ ...found.ranges[0], verdict: 'within repeatability' }] } as typeof found;
  expect(plainSentence('B', 'A', same, false, 'kW')).toMatch(
    /cannot be told apart.*; but it makes between \d+\.\d and \d+\.\d kW less from .* rpm and between .* kW more from .* rpm\.$/,
  );
});

test('a difference that rounds to nothing has no sign', () => {
  const { test: tested, baseline } = simulatedExperiment({
    seed: 4,
    runs: 4,
    otherRuns: 4,
    standardDeviation: 0.002,
    order: 'alternating',
    gain: () => 0,
  });
  const found = compareRuns(tested, baseline);
  const [range] = found.ranges;
  const ranges = [
    { ...range, difference: { ...range.difference, difference: -0.02 }, verdict: 'within repeatability' },
  ] as unknown as typeof found.ranges;
  const sentence = gainSentence({ test: 'B', baseline: 'A', ranges, clearStretches: [], unit: 'kW', withheld: [] });
  expect(phrasesText(sentence)).toMatch(/rpm: 0\.0 ± \d\.\d kW on average/);
});
