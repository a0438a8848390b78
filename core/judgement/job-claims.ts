import type { PairJudgement } from './pair-judgement.ts';

/** A pair of a job's family with the probability that its claim is made at, looks and ranges paid for. */
export interface FamilyPair extends PairJudgement {
  paid: number;
  /** What may be said among all pairs of the job; never more than the pair's own claim. */
  jobClaim: PairJudgement['claim'];
}

/** Of all claims of jobs, this share is wrong at most. */
const falseShare = 0.05;

/**
 * What may be said of each pair of a job when all are looked at together. The
 * family: every setup against the baseline and against the setup that it was
 * changed from, a pair that is both counted once; pairs whose claim is withheld
 * are not in it. The share of false ones among the claims is 5 % at most, on
 * average over jobs, and every claim is one of the pair by itself.
 * Source: Benjamini and Hochberg, Journal of the Royal Statistical Society B 57 (1995) 289.
 */
export function jobClaims(pairs: readonly (PairJudgement & { paid: number })[]): FamilyPair[] {
  const family = pairs.filter(({ claim }) => claim !== null).sort((a, b) => a.paid - b.paid);
  let called = 0;
  family.forEach(({ paid }, index) => {
    if (paid <= (falseShare * (index + 1)) / family.length) called = index + 1;
  });
  const claimed = new Set(family.slice(0, called));
  return pairs.map((pair) => ({
    ...pair,
    jobClaim: pair.claim === null ? null : claimed.has(pair) ? pair.claim : 'within repeatability',
  }));
}
