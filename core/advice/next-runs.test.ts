import { expect, test } from '@jest/globals';
import { nextRunsAdvice, type SoFar } from './next-runs.ts';
import { formatShare } from '../units/spoken.ts';

const drift = (pValue: number) => ({
  perRun: -0.4,
  halfWidth: 0.3,
  pValue,
  adjusted: 1,
  widening: 2,
  adjustedHalfWidth: 1,
  apart: 3,
  separable: false,
  orderScatter: 4,
});
const so: SoFar = {
  letter: 'B',
  parentLetter: 'A',
  runs: 3,
  planned: 3,
  spreadShare: 0.003,
  df: 4,
  bracketed: false,
};
const ids = (changed: Partial<SoFar>) => nextRunsAdvice({ ...so, ...changed }).map(({ id }) => id);

test('a drift comes first, with the advice to bracket', () => {
  const found = nextRunsAdvice({ ...so, drift: drift(0.01) });
  expect(found.slice(0, 2)).toMatchObject([
    { id: 'drift', severity: 'mind', text: expect.stringContaining('falls by about 0.4 kW') },
    { id: 'bracket', severity: 'mind', text: expect.stringContaining('Go back to A') },
  ]);
});

test('without a drift going back is only mentioned, and not at all once it was done or before the runs are', () => {
  expect(nextRunsAdvice(so)[0]).toMatchObject({ id: 'bracket', severity: 'note' });
  expect(ids({ bracketed: true })).not.toContain('bracket');
  expect(ids({ runs: 1 })).not.toContain('bracket');
  expect(ids({ parentLetter: undefined })).not.toContain('bracket');
});

test('the spread from run to run is told where there is one', () => {
  const text = (changed: Partial<SoFar>) =>
    nextRunsAdvice({ ...so, ...changed }).find(({ id }) => id === 'repeatability')?.text;
  expect(text({})).toBe('Spread from run to run 0.30 % of power.');
  expect(text({ spreadShare: undefined, df: 0 })).toBeUndefined();
});

test('shares are written with sensible digits', () => {
  expect([0.0031, 0.01, 0.0234, 0.12].map(formatShare)).toEqual(['0.31 %', '1 %', '2.3 %', '12 %']);
});
