import { written } from '../sentence/sentence.ts';
import { describe, expect, test } from '@jest/globals';
import { responseRuns } from '../testing/response-runs.ts';
import { variedItems } from './levels.ts';
import { levelWords } from './level-words.ts';
import { slopeAt, valueAt } from './parabola.ts';
import { quadraticFit } from './quadratic.ts';
import { responseTo, type Response } from './response.ts';

const ignition = { label: 'ignition', unit: '°' };
const usual = {
  seed: 1,
  levels: [0, 1.5, 3, 4.5],
  runsEach: 3,
  optimum: 2.6,
  lossPerUnit2: 0.004,
  standardDeviation: 0.003,
};
const adviceOf = (found: Response) => written(found.advice);
const made = (changed: Partial<typeof usual> = {}) =>
  responseTo(responseRuns({ ...usual, ...changed }), undefined, ignition);

test('a parabola without noise comes back exactly', () => {
  const x = [0, 1, 2, 3, 4];
  const fit = quadraticFit(
    x,
    x.map((at) => 5 + 2 * at - 0.5 * at * at),
  )!;
  expect(fit.coefficients[2]).toBeCloseTo(-0.5, 9);
  expect(valueAt(fit, 2.5).value).toBeCloseTo(5 + 5 - 3.125, 9);
  expect(slopeAt(fit, 2).value).toBeCloseTo(0, 9);
  expect(fit.standardDeviation).toBeLessThan(1e-9);
});

describe('the response', () => {
  test('finds the optimum, with an interval that holds it', () => {
    const found = made() as Response;
    expect(Math.abs(found.whole.optimum!.x - 2.6)).toBeLessThan(0.5);
    expect(found.whole.optimum!.fromX).toBeLessThan(2.6);
    expect(found.whole.optimum!.toX).toBeGreaterThan(2.6);
    expect(found.bins.length).toBeGreaterThan(5);
    expect(adviceOf(found)).toMatch(/^Best at \+2\.\d°/);
  });

  test('the interval holds the true optimum in 93 to 98 of 100 experiments', () => {
    let held = 0;
    const trials = 240;
    for (let seed = 1; seed <= trials; seed++) {
      const found = made({ seed, optimum: 1.5 + (seed % 5) * 0.4 }) as Response;
      const { optimum } = found.whole;
      const truth = 1.5 + (seed % 5) * 0.4;
      // Without a top among the levels nothing is claimed of it.
      if (!optimum || (truth >= optimum.fromX - 0.02 && truth <= optimum.toX + 0.02)) held++;
    }
    expect(held / trials).toBeGreaterThan(0.925);
    expect(held / trials).toBeLessThan(0.99);
  });

  test('the gentlest setting within half a percent lies between the start and the best', () => {
    const found = made({ standardDeviation: 0.0005 }) as Response;
    // 0.5 % lies √(0.005 ÷ 0.004) = 1.12° short of the best.
    expect(found.whole.gentlest.x).toBeCloseTo(2.6 - 1.12, 1);
    expect(found.whole.gentlest.value / found.whole.best.value).toBeGreaterThan(0.9945);
  });

  test('the last step has its gain, for each unit too', () => {
    const { lastStep } = made({ standardDeviation: 0.0005 }) as Response;
    expect(lastStep.fromX).toBe(3);
    expect(lastStep.difference).toBeLessThan(0);
    expect(lastStep.perUnit).toBeCloseTo(lastStep.difference / 1.5, 9);
  });

  test('still rising, no top within the scatter, and past the best are three different sentences', () => {
    expect(adviceOf(made({ optimum: 9, standardDeviation: 0.0006 }) as Response)).toMatch(/Still rising at \+4\.5°/);
    expect(adviceOf(made({ optimum: -4, standardDeviation: 0.0006 }) as Response)).toMatch(
      /The best lies at 0°, where the levels begin/,
    );
    expect(
      adviceOf(made({ lossPerUnit2: 0.000001, standardDeviation: 0.006, seed: 12 }) as Response).length,
    ).toBeGreaterThan(20);
  });

  test('fewer than three levels, or no repeat at all, say so and draw no curve', () => {
    expect(made({ levels: [0, 1.5] })).toMatchObject({ why: expect.stringContaining('Two levels of ignition') });
    expect(made({ levels: [0, 1.5, 3], runsEach: 1 })).toMatchObject({
      why: expect.stringContaining('One run a level'),
    });
  });
});

test('levels are written with sign and unit', () => {
  expect([12, -1.5, 0].map((x) => written(levelWords(x, 'kPa')))).toEqual(['+12 kPa', '−1.5 kPa', '0 kPa']);
  expect(written(levelWords(0.88, ''))).toBe('0.88');
});

test('setups that differ in one numeric item alone are its levels, however they were come to', () => {
  const ignitionBy = (by: number) => ({ kind: 'ignition' as const, by });
  const setups = [
    { id: 1, parentId: null, items: [] },
    { id: 2, parentId: 1, items: [ignitionBy(1.5)] },
    { id: 3, parentId: 2, items: [ignitionBy(1.5)] },
    { id: 4, parentId: 2, items: [] },
    { id: 5, parentId: 3, items: [{ kind: 'plug-gap' as const, to: 0.7 }] },
  ];
  const [found, ...others] = variedItems(setups, 3, [1, 2, 3, 4, 5]);
  expect(found).toMatchObject({
    key: expect.stringMatching(/^ignition\//),
    unit: '°',
    levels: [
      { x: 0, setupIds: [1] },
      { x: 1.5, setupIds: [2, 4] },
      { x: 3, setupIds: [3] },
    ],
  });
  // The plug gap has two levels: the one of setup 5, and that of those like setup 3.
  expect(others.map(({ key }) => key)).toEqual(['plug-gap/0']);
});

test('an item with four levels is offered beside one with two, around whichever setup they were tried', () => {
  const boostBy = (by: number) => ({ kind: 'boost' as const, by });
  const setups = [
    { id: 1, parentId: null, items: [] },
    { id: 2, parentId: 1, items: [boostBy(6)] },
    { id: 3, parentId: 2, items: [boostBy(6)] },
    { id: 4, parentId: 3, items: [boostBy(6)] },
    { id: 5, parentId: 3, items: [{ kind: 'ignition' as const, by: 1 }] },
    { id: 6, parentId: 5, items: [{ kind: 'ignition' as const, by: 1 }] },
  ];
  const found = variedItems(setups, 6, [1, 2, 3, 4, 5, 6]);
  expect(found.map(({ label, levels }) => [label, levels.map(({ x }) => x)])).toEqual([
    ['boost', [0, 6, 12, 18]],
    ['ignition', [0, 1, 2]],
  ]);
});

describe('the order in which levels were tried', () => {
  test('a sweep downwards ends at its lowest level, and its last step says so', () => {
    const levels = responseRuns({ ...usual, standardDeviation: 0.0005 });
    const downwards = levels.map((level, index) => ({ ...level, order: levels.length - index }));
    const { lastStep } = responseTo(downwards, undefined, ignition) as Response;
    expect([lastStep.fromX, lastStep.toX]).toEqual([1.5, 0]);
    expect(lastStep.perUnit).toBeCloseTo(lastStep.difference / -1.5, 9);
  });

  /** Runs made one after the other, sagging by so much a run; `order` are the levels in the order that they were run in. */
  const sagging = (order: readonly number[], perRun: number) => {
    const levels = responseRuns({ ...usual, levels: [0, 1.5, 3, 4.5], runsEach: 3, standardDeviation: 0.0008 });
    const left = levels.map(({ runs }) => [...runs]);
    const placed = order.map((at, place) => {
      const run = left[at]!.shift()!;
      return { at, run: { ...run, atMs: place * 480e3, values: run.values.map((kw) => kw * (1 - perRun * place)) } };
    });
    return levels.map((level, at) => ({ ...level, runs: placed.filter((one) => one.at === at).map(({ run }) => run) }));
  };
  const straight = [0, 0, 0, 1, 1, 1, 2, 2, 2, 3, 3, 3];
  const returning = [0, 0, 1, 1, 2, 2, 3, 3, 0, 1, 2, 3];

  test('without a return no optimum is told, and a return is asked for; with one it is', () => {
    const told = responseTo(sagging(straight, 0.002), undefined, ignition) as Response;
    expect(told.inOrder).toBe(true);
    expect([told.whole, ...told.bins].every(({ optimum }) => optimum === undefined)).toBe(true);
    expect(adviceOf(told)).toMatch(
      /^Where the best lies is not told: .*Run 0° once more: it settles it; the last step/,
    );
    const settled = responseTo(sagging(returning, 0), undefined, ignition) as Response;
    expect(settled.inOrder).toBe(false);
    expect(settled.whole.optimum!.x).toBeCloseTo(2.6, 0);
  });

  test('each level but the first has what it gave on the one before, with an interval', () => {
    const { levels } = made({ standardDeviation: 0.0005 }) as Response;
    expect(levels[0]!.step).toBeUndefined();
    for (const [at, { step, mean }] of levels.entries())
      if (step) {
        expect(step.difference).toBeCloseTo(mean - levels[at - 1]!.mean, 9);
        expect(step.halfWidth).toBeGreaterThan(0);
      }
  });
});

describe('limits come before the power', () => {
  const broken = {
    quantity: 'knockRetard',
    label: 'Knock retard',
    unit: '°',
    side: 'most',
    limit: 3,
    reading: 4.2,
    stoichiometric: 14.7,
    atRpm: 6050,
    usual: true,
  } as const;
  const rising = () => responseRuns({ ...usual, optimum: 9, standardDeviation: 0.0006 });

  test('a last level that knocked is gone back from, whatever it gave', () => {
    const levels = rising().map((level, index) => (index === 3 ? { ...level, broken: [broken] } : level));
    const advice = adviceOf(responseTo(levels, undefined, ignition) as Response);
    expect(advice).toMatch(
      /At \+4\.5° it knocked, 4\.2° taken back at 6,050 rpm .*: go back to \+3°, whatever the power says/,
    );
    expect(advice).not.toContain('beyond what was tried');
  });

  test('a step that would cross a limit is not advised: 122 of 125 after 116', () => {
    const left = [21, 15, 9, 3];
    const levels = rising().map((level, index) => ({
      ...level,
      headroom: [{ label: 'Boost', unit: 'kPa', left: left[index]! }],
    }));
    const advice = adviceOf(responseTo(levels, undefined, { label: 'boost', unit: 'kPa' }) as Response);
    expect(advice).toMatch(/another step would cross a limit: boost has 3\.0 kPa left\. Stop here\./);
    const roomy = rising().map((level, index) => ({
      ...level,
      headroom: [{ label: 'Boost', unit: 'kPa', left: 90 - 6 * index }],
    }));
    expect(adviceOf(responseTo(roomy, undefined, { label: 'boost', unit: 'kPa' }) as Response)).toContain(
      'The best lies beyond',
    );
  });
});

test('a value that nobody wrote down is no zero: the setup is left out, and named', () => {
  const lambdaTo = (to: number) => ({ kind: 'lambda-target' as const, to });
  const setups = [
    { id: 1, parentId: null, items: [] },
    { id: 2, parentId: 1, items: [lambdaTo(0.86)] },
    { id: 3, parentId: 2, items: [lambdaTo(0.88)] },
    { id: 4, parentId: 3, items: [lambdaTo(0.9)] },
  ];
  const [found] = variedItems(setups, 4, [1, 2, 3, 4]);
  expect(found!.levels.map(({ x }) => x)).toEqual([0.86, 0.88, 0.9]);
  expect(found!.unknownIds).toEqual([1]);
  // The same looked at from the car as it came.
  const [fromFirst] = variedItems(setups, 1, [1, 2, 3, 4]);
  expect(fromFirst!.levels.map(({ x }) => x)).toEqual([0.86, 0.88, 0.9]);
  expect(fromFirst!.unknownIds).toEqual([1]);
});
