import { expect, test } from '@jest/globals';
import { simulatedExperiment } from '../testing/simulated-experiment.ts';
import { attributionOf, type AttributedSetup, type DifferenceBetween } from './attribution.ts';
import { bandDifference } from './comparison.ts';

/** A line of setups, each with the runs of a drawn experiment at a gain of its own. */
function line(gains: readonly number[], seed = 3, standardDeviation = 0.002): AttributedSetup[] {
  return gains.map((gain, index) => ({
    id: index + 1,
    letter: 'ABCDEF'[index]!,
    parentId: index === 0 ? null : index,
    change: index === 0 ? 'As arrived' : `change ${index}`,
    items: index === 0 ? [] : [{ kind: 'words' as const, name: `change ${index}` }],
    runs: simulatedExperiment({ seed: seed + 17 * index, runs: 3, otherRuns: 1, standardDeviation, gain: () => gain })
      .test,
  }));
}

/** Differences of the setups' own runs. */
const between =
  (setups: readonly AttributedSetup[]): DifferenceBetween =>
  (testId, againstId, fromRpm, toRpm) =>
    bandDifference([setups[testId - 1]!.runs, setups[againstId - 1]!.runs], fromRpm, toRpm);
const ladder = (setups: readonly AttributedSetup[], toId: number, range?: [number, number]) =>
  attributionOf(setups, toId, between(setups), range);

test('each step has its gain, and the gains add up to the whole', () => {
  const found = ladder(line([0, 0.03, 0.03, 0.05]), 4)!;
  const sum = found.steps.reduce((total, { gain }) => total + (gain?.difference ?? 0), 0);
  expect(sum).toBeCloseTo(found.whole.difference, 9);
  expect(found.steps.map(({ setupId, beforeId }) => [setupId, beforeId])).toEqual([
    [1, undefined],
    [2, 1],
    [3, 2],
    [4, 3],
  ]);
  expect(found.steps.map(({ letter }) => letter)).toEqual(['A', 'B', 'C', 'D']);
});

test('a setup on the way that never ran is joined with the next, and what they gave cannot be split', () => {
  const setups = line([0, 0, 0.04]);
  setups[1]!.runs = [];
  const found = ladder(setups, 3)!;
  expect(found.steps).toMatchObject([
    { letter: 'A' },
    { letter: 'C', inseparable: true, items: 2, change: 'change 1, then change 2' },
  ]);
});

test('only the line that leads to the setup counts, and a band that all cover is kept to', () => {
  const setups = line([0, 0.02, 0.04]);
  setups[2]!.parentId = 1;
  const found = ladder(setups, 3, [3000, 5000])!;
  expect(found.steps.map(({ letter }) => letter)).toEqual(['A', 'C']);
  expect([found.fromRpm, found.toRpm]).toEqual([3000, 5000]);
});

test('one run setup alone is no ladder', () => {
  const setups = line([0, 0.02]);
  setups[0]!.runs = [];
  expect(ladder(setups, 2)).toBeUndefined();
});

test('the intervals of steps hold the true gains', () => {
  let held = 0;
  let all = 0;
  for (let seed = 1; seed <= 120; seed++) {
    const gains = [0, 0.01, 0.025];
    const setups = line(gains, seed * 101, 0.004);
    const found = ladder(setups, 3)!;
    const level = found.steps[0]!.meanKw;
    found.steps.slice(1).forEach(({ gain }, index) => {
      const truth = (gains[index + 1]! - gains[index]!) * level;
      all++;
      if (Math.abs(gain!.difference - truth) <= gain!.halfWidth) held++;
    });
  }
  expect(held / all).toBeGreaterThan(0.9);
});
