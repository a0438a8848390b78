import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { meanDifference } from '../statistics/mean-difference.ts';
import { bestSetup } from './best-setup.ts';
import { jobClaims } from './job-claims.ts';
import type { PairJudgement } from './pair-judgement.ts';

const pair = (
  testId: number,
  paid: number,
  kw: number,
  over: Partial<PairJudgement> = {},
): PairJudgement & { paid: number } => ({
  testId,
  againstId: 1,
  fromRpm: 2000,
  toRpm: 6000,
  difference: { ...meanDifference([1, 2, 3], [1, 2, 3]), difference: kw },
  drift: undefined,
  judging: { kind: 'every-look', look: 1 },
  uncovered: [],
  claim: paid <= 0.05 ? (kw > 0 ? 'gain' : 'loss') : 'within repeatability',
  withheld: [],
  paid,
  ...over,
});

describe('what may be said among all pairs of a job', () => {
  test('is never more than what may be said of the pair by itself', () => {
    const drawn = fc.array(fc.tuple(fc.double({ min: 0, max: 1, noNaN: true }), fc.boolean(), fc.boolean()), {
      minLength: 1,
      maxLength: 14,
    });
    fc.assert(
      fc.property(drawn, (list) => {
        const pairs = list.map(([p, isGain, isWithheld], index) =>
          pair(index + 2, p / 4, isGain ? 1 : -1, isWithheld ? { claim: null, withheld: [{ id: 'no-spread' }] } : {}),
        );
        for (const { claim, jobClaim } of jobClaims(pairs)) {
          if (jobClaim === 'gain' || jobClaim === 'loss') expect(jobClaim).toBe(claim);
          expect(jobClaim === null).toBe(claim === null);
        }
      }),
    );
  });

  test('one claim among eight nothings needs more than 5 %', () => {
    const nothings = Array.from({ length: 7 }, (_, index) => pair(index + 3, 0.4 + 0.05 * index, 1));
    expect(jobClaims([pair(2, 0.03, 1), ...nothings])[0]!.jobClaim).toBe('within repeatability');
    expect(jobClaims([pair(2, 0.005, 1), ...nothings])[0]!.jobClaim).toBe('gain');
    expect(jobClaims([pair(2, 0.03, 1)])[0]!.jobClaim).toBe('gain');
  });

  test('pairs of which nothing may be said take nothing from the others', () => {
    const withheld = Array.from({ length: 7 }, (_, index) =>
      pair(index + 3, 0, 9, { claim: null, withheld: [{ id: 'no-spread' }] }),
    );
    expect(jobClaims([pair(2, 0.03, 1), ...withheld])[0]!.jobClaim).toBe('gain');
  });
});

describe('the best setup so far', () => {
  const claimed = (testId: number, kw: number) => jobClaims([pair(testId, 0.001, kw)])[0]!;

  test('is the largest gain that is claimed', () => {
    expect(
      bestSetup([
        { setupId: 2, onBaseline: claimed(2, 3) },
        { setupId: 3, onBaseline: claimed(3, 4) },
      ]),
    ).toBe(3);
    expect(bestSetup([{ setupId: 1 }, { setupId: 2, onBaseline: claimed(2, -3) }])).toBeUndefined();
  });

  test('is none that somebody went back from, that is unsafe, or whose gain is not claimed', () => {
    const onBaseline = claimed(2, 5);
    const other = { setupId: 3, onBaseline: claimed(3, 2) };
    expect(bestSetup([{ setupId: 2, decision: 'go back', onBaseline }, other])).toBe(3);
    expect(bestSetup([{ setupId: 2, unsafe: true, onBaseline }, other])).toBe(3);
    const [anotherDyno] = jobClaims([pair(2, 0, 9, { claim: null, withheld: [{ id: 'no-spread' }] })]);
    expect(bestSetup([{ setupId: 2, onBaseline: anotherDyno }, other])).toBe(3);
  });
});
