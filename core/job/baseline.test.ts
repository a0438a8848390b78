import { describe, expect, test } from '@jest/globals';
import { baselineRuns, baselineSetup, countsInFigures } from './baseline.ts';
import { usualAgainst, usualTest } from './sides.ts';

const setups = [
  { id: 1, parentId: null },
  { id: 2, parentId: 1 },
  { id: 3, parentId: 2 },
  { id: 4, parentId: 1 },
];
const run = (id: number, setupId: number, over: object = {}) => ({
  id,
  setupId,
  kind: 'power',
  state: 'sealed',
  setAsideReason: null as string | null,
  ...over,
});
const frozen = { setupId: 2, runIds: [11, 13] };

describe('which setup is the baseline', () => {
  test('the one chosen, else the frozen one, else the first', () => {
    expect(baselineSetup(setups, frozen, 3).id).toBe(3);
    expect(baselineSetup(setups, frozen).id).toBe(2);
    expect(baselineSetup(setups, null).id).toBe(1);
    expect(baselineSetup(setups, { setupId: 99, runIds: [] }, 98).id).toBe(1);
  });

  test('a frozen list counts its own runs and no others, also one that was set aside since', () => {
    const runs = [
      run(11, 2, { setAsideReason: 'slipped' }),
      run(12, 2),
      run(13, 2),
      run(14, 1),
      run(15, 2, { state: 'recording' }),
    ];
    expect(baselineRuns(runs, 2, frozen).map(({ id }) => id)).toEqual([11, 13]);
    expect(baselineRuns(runs, 2, null).map(({ id }) => id)).toEqual([12, 13]);
    expect(countsInFigures(run(14, 1), frozen)).toBe(true);
    expect(countsInFigures(run(16, 1, { kind: 'conditioning' }), frozen)).toBe(false);
  });
});

describe('what is looked at, and what it is compared with', () => {
  const byId = (...ids: number[]) => setups.filter(({ id }) => ids.includes(id));

  test('the newest that ran, against its parent', () => {
    expect(usualTest(byId(1, 2, 3), setups[0]!).id).toBe(3);
    expect(usualAgainst(setups, setups[2]!, byId(1, 2, 3)).id).toBe(2);
    expect(usualTest([], setups[0]!).id).toBe(1);
  });

  test('past a parent that was never run, to the nearest earlier one that was', () => {
    expect(usualAgainst(setups, setups[2]!, byId(1, 3)).id).toBe(1);
  });

  test('the first setup against any other that ran; alone against itself', () => {
    expect(usualAgainst(setups, setups[0]!, byId(1, 4)).id).toBe(4);
    expect(usualAgainst(setups, setups[0]!, byId(1)).id).toBe(1);
  });
});
