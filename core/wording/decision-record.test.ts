import { keptUnits } from '../units/told-units.ts';
import { expect, test } from '@jest/globals';
import type { FamilyPair } from '../judgement/job-claims.ts';
import { meanDifference } from '../statistics/mean-difference.ts';
import { decisionRecord, type DecidedOn } from './decision-record.ts';

const difference = meanDifference([103, 103.4, 102.6], [100, 100.3, 99.7]);
const pair = {
  testId: 3,
  againstId: 2,
  fromRpm: 2200,
  toRpm: 6900,
  difference,
  drift: undefined,
  uncovered: [],
  judging: { kind: 'every-look', look: 2 },
  claim: 'gain',
  jobClaim: 'gain',
  withheld: [],
} as unknown as FamilyPair;
const said = (over: Partial<DecidedOn> = {}) =>
  decisionRecord({
    pair,
    letters: { test: 'C', against: 'B' },
    among: 7,
    spread: { share: 0.004, df: 9, from: 'learned', repeats: 24 },
    predictionKw: null,
    ...over,
  });

test('what a decision rested on names figure, claim, rule and spread', () => {
  expect(said()).toMatch(
    /^C on B \+3\.0 ± \d\.\d kW from 2,200 to 6,900 rpm, gain shown; interval holds however often you look; spread from the job’s own repeats$/,
  );
  const learned = { ...pair, difference: { ...difference, from: 'learned' as const } };
  expect(said({ pair: learned })).toContain('spread from 24 repeats: 0.40 %, worth 10 runs');
});

test('it tells a pair’s claim from the job’s, scores the prediction, and names a crank estimate', () => {
  expect(said({ pair: { ...pair, jobClaim: 'within repeatability' } as FamilyPair })).toContain(
    'shown for this pair, not among 7 setups',
  );
  expect(said({ predictionKw: 3.1 })).toMatch(/; expected \+3\.1 kW: prediction right$/);
  expect(
    decisionRecord(
      {
        pair,
        letters: { test: 'C', against: 'B' },
        among: 7,
        spread: { share: 0.004, df: 9, from: 'learned' },
        predictionKw: 3.1,
      },
      { ...keptUnits, power: 'hp' },
    ),
  ).toMatch(/^C on B \+4\.0 ± \d\.\d hp .*; expected \+4\.2 hp: prediction right$/);
  expect(said({ predictionKw: -2 })).toMatch(/; expected −2\.0 kW: prediction wrong$/);
  expect(said({ estimate: '15 % loss assumed' })).toContain('≈ at the crank (15 % loss assumed)');
});

test('nothing is recorded where nothing could be compared', () => {
  expect(said({ pair: undefined })).toBe('');
});
