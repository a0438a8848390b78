import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { simulatedExperiment } from '../testing/simulated-experiment.ts';
import { compareRuns } from './comparison.ts';

const known = fc.option(
  fc.record({
    standardDeviation: fc.double({ min: 0.001, max: 0.02, noNaN: true }),
    df: fc.integer({ min: 1, max: 40 }),
  }),
  { nil: undefined },
);
const mirrored = {
  gain: 'loss',
  loss: 'gain',
  unknown: 'unknown',
  'within repeatability': 'within repeatability',
  'drift suspected': 'drift suspected',
  'spread assumed': 'spread assumed',
  'clear alone': 'clear alone',
  'plan not full': 'plan not full',
  'band not covered': 'band not covered',
} as const;
const rounded = (value: number) => (Number.isNaN(value) ? NaN : Number(value.toPrecision(9)) + 0);
const all = (values: ArrayLike<number>) => Array.from(values, rounded);
const negated = (values: ArrayLike<number>) => Array.from(values, (value) => rounded(-value));

test('sides swapped flip every sign and nothing else, whatever is known and however it was strapped', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 1e6 }),
      fc.integer({ min: 1, max: 4 }),
      fc.integer({ min: 1, max: 4 }),
      fc.double({ min: -0.04, max: 0.04, noNaN: true }),
      known,
      known,
      fc.constantFrom('blocks' as const, 'alternating' as const, 'bracketed' as const),
      (seed, runs, otherRuns, gain, prior, remount, order) => {
        const made = simulatedExperiment({ seed, runs, otherRuns, standardDeviation: 0.006, gain: () => gain, order });
        const alike = [simulatedExperiment({ seed: seed + 1, runs: 2, otherRuns: 2, standardDeviation: 0.006 }).test];
        const options = {
          alike: seed % 2 ? alike : [],
          spread: prior && { share: prior.standardDeviation, df: prior.df, from: 'learned' as const },
          remount,
          bands: [[3000, 4500]] as [number, number][],
        };
        const there = compareRuns(made.test, made.baseline, options);
        const back = compareRuns(made.baseline, made.test, options);
        expect(all(back.gain)).toEqual(negated(there.gain));
        expect(rounded(back.commonRange.difference)).toBe(rounded(-there.commonRange.difference));
        expect(rounded(back.peaks.difference.difference)).toBe(rounded(-there.peaks.difference.difference));
        expect(back.ranges.map(({ fromRpm, toRpm }) => [fromRpm, toRpm])).toEqual(
          there.ranges.map(({ fromRpm, toRpm }) => [fromRpm, toRpm]),
        );
        expect(back.commonRange.from).toBe(there.commonRange.from);
        expect(back.ranges.map(({ verdict }) => verdict)).toEqual(there.ranges.map(({ verdict }) => mirrored[verdict]));
        expect(rounded(back.commonRange.halfWidth)).toEqual(rounded(there.commonRange.halfWidth));
      },
    ),
    { numRuns: 60 },
  );
});
