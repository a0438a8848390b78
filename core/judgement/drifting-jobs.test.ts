import { describe, expect, test } from '@jest/globals';
import { simulatedDay, type DayRun } from '../testing/simulated-day.ts';
import { driftPath, driftShapes, type DriftShape } from '../testing/drift-shapes.ts';
import { judgedDay } from '../testing/judged-day.ts';

const each = (runs: number, ...letters: string[]) =>
  letters.flatMap((letter) => Array.from({ length: runs }, () => letter));
const sixSetups = each(3, 'A', 'B', 'C', 'D', 'E', 'F');
const days = 60;

/** Shares of drawn jobs in which nothing changes: with any claim of the job, with a best setup, and of intervals that hold. */
function drawn(order: readonly string[], shape: DriftShape, perRun = 0.3) {
  let [claimed, best, held, pairs] = [0, 0, 0, 0];
  for (let seed = 1; seed <= days; seed++) {
    const spread = [0.002, 0.004, 0.008][seed % 3]!;
    const day = simulatedDay({ seed, order, spread, drift: driftPath(shape, order.length, perRun, seed) });
    const judgements = judgedDay(day, { planned: 3 });
    const called = judgements.filter(({ jobClaim }) => jobClaim === 'gain' || jobClaim === 'loss');
    if (called.length > 0) claimed++;
    if (called.some(({ againstId, jobClaim }) => againstId === 0 && jobClaim === 'gain')) best++;
    pairs += judgements.length;
    held += judgements.filter(({ difference: { difference, halfWidth } }) => Math.abs(difference) <= halfWidth).length;
  }
  return { claimed: claimed / days, best: best / days, held: held / pairs };
}

// One day in twenty, and what sixty days may show of it by chance (99 of 100); the bench draws ten times as many.
const most = 8 / days;

describe('nothing changes over a planned job, whatever the day does', () => {
  test.each(driftShapes)('%s: six setups, three runs each', (shape) => {
    const { claimed, best, held } = drawn(sixSetups, shape);
    expect(claimed).toBeLessThanOrEqual(most);
    expect(best).toBeLessThanOrEqual(most);
    expect(held).toBeGreaterThan(0.93);
  });

  test.each(['rise', 'sag', 'saturating', 'random walk'] as const)('%s: two setups, and with a return', (shape) => {
    const two = drawn(each(3, 'A', 'B'), shape);
    const returned = drawn([...each(3, 'A', 'B'), 'A'], shape);
    const far = drawn([...sixSetups, 'A'], shape);
    for (const { claimed, held } of [two, returned, far]) {
      expect(claimed).toBeLessThanOrEqual(most);
      expect(held).toBeGreaterThan(0.9);
    }
  });
});

test('the allowance follows how far setups lie apart, and a return takes most of it away', () => {
  const halves = (order: readonly string[]) => {
    const day = simulatedDay({ seed: 4, order, spread: 0.004 });
    return judgedDay(day, { planned: 3 }).flatMap(({ testId, againstId, difference }) =>
      againstId === 0 ? [{ testId, half: difference.halfWidth / difference.standardDeviation, ...difference }] : [],
    );
  };
  const straight = halves(sixSetups);
  const [first, last] = [straight[0]!, straight.at(-1)!];
  // 2.24 and 5.8 spreads for very many degrees of freedom; here there are fifteen.
  expect(first.half).toBeGreaterThan(2.24);
  expect(last.half).toBeGreaterThan(5.8);
  expect(last.withoutDrift).toBe(false);
  const returned = halves([...sixSetups, 'A']).at(-1)!;
  expect(returned.withoutDrift).toBe(true);
  expect(returned.half).toBeLessThan(0.65 * last.half);
});

test('runs of a job that are in no figure lie between the setups all the same', () => {
  const order = [...each(3, 'A'), ...each(9, 'x'), ...each(3, 'B')];
  const day = simulatedDay({ seed: 2, order, spread: 0.004 });
  const kept = day.flatMap((run, place) => (run.setup === 'x' ? [] : [{ ...run, place }]));
  const moved = (runs: readonly DayRun[]) => judgedDay(runs)[0]!.difference.moved;
  expect(moved(kept)).toBeCloseTo((0.3 * 12) / Math.sqrt(2 / 3), 9);
  expect(moved(day.filter(({ setup }) => setup !== 'x'))).toBeCloseTo((0.3 * 3) / Math.sqrt(2 / 3), 9);
});
