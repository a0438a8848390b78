import { describe, expect, test } from '@jest/globals';
import { meanDifference } from '../statistics/mean-difference.ts';
import { smallestDetectableChange } from '../statistics/detectable.ts';
import { levelOf } from '../comparison/judging-rule.ts';
import type { PairJudgement } from './pair-judgement.ts';
import { nextRunWords } from '../wording/judgement-words.ts';
import { nextRun, nextRunOfPair } from './next-run.ts';

const everyLook = { kind: 'every-look', look: 3 } as const;
const pair = (over: Partial<PairJudgement> = {}): PairJudgement => ({
  testId: 2,
  againstId: 1,
  fromRpm: 2000,
  toRpm: 6000,
  difference: meanDifference([100.7, 100.9, 101.1], [100, 100.3, 100.6], {
    prior: { standardDeviation: 0.4, df: 20, from: 'learned' },
  }),
  drift: undefined,
  judging: everyLook,
  uncovered: [],
  claim: 'within repeatability',
  withheld: [],
  ...over,
});
const three = { test: 3, baseline: 3 };
const say = (over: Partial<PairJudgement>, runs = three) =>
  nextRunWords(nextRunOfPair(pair(over), runs), (id) => 'xAB'[id]!);

describe('the next best run', () => {
  test('fills the plan first, the baseline before the test', () => {
    const judging = { kind: 'planned', missing: { test: 2, baseline: 1 }, further: 0 } as const;
    expect(say({ judging })).toBe('1 more run of A: the plan is not full.');
    expect(say({ judging: { ...judging, missing: { test: 2, baseline: 0 } } })).toBe(
      '2 more runs of B: the plan is not full.',
    );
  });

  test('is a return where drift stands in the way, and the baseline anew on another day', () => {
    expect(say({ claim: null, withheld: [{ id: 'drift', perRunKw: -0.3 }] })).toMatch(/^Return to A for a run/);
    const remount = { id: 'remount', severity: 'stop' as const, message: '', matters: '' };
    expect(nextRunOfPair(pair({ claim: null, withheld: [{ id: 'not-alike', respect: remount }] }), three).setupId).toBe(
      1,
    );
    const gear = { ...remount, id: 'other-gear' };
    expect(nextRunOfPair(pair({ claim: null, withheld: [{ id: 'not-alike', respect: gear }] }), three).setupId).toBe(2);
  });

  test('is enough once something is claimed', () => {
    expect(say({ claim: 'gain' })).toMatch(/^Enough/);
  });

  test('is of the side with fewer runs, so many that one percent would show; more where every look is paid for', () => {
    const next = nextRunOfPair(pair(), { test: 1, baseline: 3 });
    expect(next).toMatchObject({ setupId: 2, why: 'shows-more', wantedShare: 0.01 });
    const planned = { kind: 'planned', missing: { test: 0, baseline: 0 }, further: 0 } as const;
    const fewer = nextRunOfPair(pair({ judging: planned }), { test: 1, baseline: 3 });
    expect(next.runs).toBeGreaterThan(fewer.runs);
  });

  test('is none where the whole interval lies within what matters, and one at least where it does not', () => {
    const near = meanDifference([100.2, 100.3, 100.4], [100, 100.3, 100.6], {
      prior: { standardDeviation: 0.3, df: 30, from: 'learned' },
    });
    expect(Math.abs(near.difference) + near.halfWidth).toBeLessThan(1);
    expect(nextRunOfPair(pair({ difference: near }), three).why).toBe('enough');
    // Nothing is claimed, and it is not said that nothing is there.
    const open = nextRunOfPair(pair({ difference: near, claim: null, withheld: [{ id: 'no-spread' }] }), three);
    expect(open).toMatchObject({ why: 'shows-more', runs: 1 });
    expect(nextRunOfPair(pair({ difference: near }), three, 0.003).why).not.toBe('enough');
  });

  test('is a return where that buys most: far from the baseline runs of the newest setup tell little', () => {
    const far = { test: [15, 16, 17], baseline: [0, 1, 2], next: 18, driftPerRun: 0.3 };
    const drift = { orderScatter: 12 } as PairJudgement['drift'];
    const judging = { kind: 'planned', missing: { test: 0, baseline: 0 }, further: 0 } as const;
    const next = nextRunOfPair(pair({ drift, judging }), { ...three, order: far });
    expect(next).toMatchObject({ setupId: 1, why: 'shows-more' });
    expect(next.runs).toBeLessThanOrEqual(3);
    const side = { test: [1, 3, 5], baseline: [0, 2, 4], next: 6, driftPerRun: 0.3 };
    expect(nextRunOfPair(pair({ judging }), { ...three, order: side }).runs).toBeLessThanOrEqual(2);
  });

  test('waits until what is a reason to stop has been seen to', () => {
    const open = { pair: pair(), runs: { test: 1, baseline: 3 } };
    const next = nextRun([open], { repair: { setupId: 2, label: 'B2' }, unrun: 4, paceS: 300 });
    expect(next).toEqual({ setupId: 2, againstId: null, why: 'repair', runs: 0, repair: 'B2' });
    expect(nextRunWords(next, () => 'B')).toBe(
      'See to what was found on B2 before another run: it is a reason to stop.',
    );
  });

  test('follows the change that the owner cares about, and tells how long it takes at the pace so far', () => {
    const open = { pair: pair(), runs: { test: 1, baseline: 3 } };
    const fine = nextRun([open], { wantedShare: 0.008, paceS: 400 });
    const coarse = nextRun([open], { wantedShare: 0.012, paceS: 400 });
    expect(fine.runs).toBeGreaterThan(coarse.runs);
    expect(fine).toMatchObject({ wantedShare: 0.008, expectedS: 400 * fine.runs });
    expect(nextRunWords(nextRun([], { unrun: 2, paceS: 400 }), () => 'B')).toBe(
      'Run B: it has no counted run yet. About 7 min at the pace so far.',
    );
    expect(nextRun([], { paceS: 400 })).not.toHaveProperty('expectedS');
  });

  test('says when no reasonable number would do', () => {
    const wild = meanDifference([90, 110, 100], [95, 105, 85]);
    expect(say({ difference: wild })).toMatch(/too small to be shown/);
  });

  test('of a job is that of a setup without a run, else of its newest pair that wants one', () => {
    expect(nextRun([], { unrun: 4 })).toMatchObject({ setupId: 4, why: 'first-run' });
    const enough = { pair: pair({ claim: 'gain' }), runs: three };
    const open = { pair: pair({ testId: 3 }), runs: { test: 1, baseline: 3 } };
    expect(nextRun([open, enough]).setupId).toBe(3);
    expect(nextRun([enough])).toMatchObject({ setupId: null, why: 'enough' });
  });
});

test('each further run is a further look: the price of all of them is in what is asked for', () => {
  const { standardDeviation, spread } = pair().difference;
  const next = nextRunOfPair(pair(), { test: 1, baseline: 3 });
  // The runs by hand: the side with fewer first, each with the price of the look that it makes.
  let [n, m, added] = [1, 3, 0];
  const wantedKw = 0.01 * Math.abs(pair().difference.baseline);
  while (
    smallestDetectableChange(standardDeviation, { df: spread.df + added, told: spread.told + added }, n, m, {
      level: levelOf({ kind: 'every-look', look: 3 + added }),
    }) > wantedKw
  ) {
    if (n <= m) n++;
    else m++;
    added++;
  }
  expect(next.runs).toBe(Math.max(n - 1, m - 3));
  // A look of the price of the first one would ask for fewer.
  const wanted = (look: (added: number) => number) => {
    for (let runs = 0; ; runs++)
      if (
        smallestDetectableChange(0.55, { df: 8 + runs, told: 8 + runs }, 1 + runs, 30, {
          level: levelOf({ kind: 'every-look', look: look(runs) }),
        }) <= 0.66
      )
        return runs;
  };
  expect(wanted((runs) => 3 + runs)).toBeGreaterThan(wanted(() => 3));
});

test('a pair names whom it is against, whichever side it asks for', () => {
  expect(nextRunOfPair(pair(), { test: 1, baseline: 3 })).toMatchObject({ setupId: 2, againstId: 1 });
  expect(nextRunOfPair(pair(), { test: 3, baseline: 1 })).toMatchObject({ setupId: 1, againstId: 2 });
  const full = { kind: 'planned', missing: { test: 0, baseline: 0 }, further: 0 } as const;
  expect(nextRunOfPair(pair({ judging: full, claim: 'loss' }), three)).toMatchObject({ why: 'enough', runs: 0 });
  expect(nextRunOfPair(pair({ claim: 'loss' }), three)).toMatchObject({ setupId: null, why: 'enough' });
});

test('a job without a pair asks for what its baseline lacks, and for nothing where it lacks none', () => {
  const missing = (runs: number) => ({ setupId: 7, runs });
  expect(nextRun([], { missing: missing(2), paceS: 300 })).toEqual({
    setupId: 7,
    againstId: null,
    why: 'baseline',
    runs: 2,
    expectedS: 600,
  });
  expect(nextRun([], { missing: missing(0) })).toEqual({ setupId: null, againstId: null, why: 'enough', runs: 0 });
  const enough = { pair: pair({ claim: 'gain' }), runs: three };
  expect(nextRun([enough], { missing: missing(2) }).why).toBe('enough');
  expect(nextRun([], { unrun: 4, missing: missing(2), paceS: 300 })).toEqual({
    setupId: 4,
    againstId: null,
    why: 'first-run',
    runs: 1,
    expectedS: 300,
  });
});
