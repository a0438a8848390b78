import { expect, test } from '@jest/globals';
import { runAdvice, type AdvisedJob } from './run-advice.ts';

const [a, b] = [
  { id: 1, letter: 'A', parentId: null, items: [] },
  { id: 2, letter: 'B', parentId: 1, items: [{ kind: 'ignition' as const, by: 1 }] },
];
const run = (setupId: number, minute: number, more: object = {}) => ({
  setupId,
  kind: 'power',
  setAsideReason: null,
  startedAt: `2026-01-01T10:${String(minute).padStart(2, '0')}:00Z`,
  ...more,
});
const job = (runs: AdvisedJob['runs']): AdvisedJob => ({ setups: [a, b], runs });
const ids = (of: AdvisedJob, planned = 2) => runAdvice(of, b, a, undefined, planned).map(({ id }) => id);

test('going back is advised once the planned runs count, and not once it was done', () => {
  const done = [run(1, 0), run(2, 10), run(2, 20)];
  expect(ids(job(done))).toEqual(['bracket']);
  expect(ids(job(done), 3)).toEqual([]);
  expect(ids(job([...done, run(1, 30)]))).toEqual([]);
});

test('runs set aside, and those of another kind, neither count nor bracket', () => {
  expect(ids(job([run(2, 10), run(2, 20, { setAsideReason: 'hot' })]))).toEqual([]);
  expect(ids(job([run(2, 10), run(2, 20), run(1, 30, { kind: 'conditioning' })]))).toEqual(['bracket']);
});

test('a setup that only went back brackets as the earlier one would', () => {
  const back = { id: 3, letter: 'C', parentId: 1, items: [] };
  const returned = { setups: [a, b, back], runs: [run(2, 10), run(2, 20), run(3, 30)] };
  expect(runAdvice(returned, b, a, undefined, 2)).toEqual([]);
});

test('the first setup’s own spread is told, and what comes next before it', () => {
  const figures = {
    setups: [{ setupId: 1, runs: 3, peakKw: 100, spreadKw: 0.8 }],
    next: { setupId: 1, againstId: null, why: 'baseline', runs: 2 },
  } as unknown as Parameters<typeof runAdvice>[3];
  const [next, advice] = runAdvice(job([run(1, 0), run(1, 10), run(1, 20)]), a, a, figures, 3);
  expect(next!.text).toMatch(/^2 more runs of A/);
  expect(advice!.text).toMatch(/0\.80 % of power/);
});
