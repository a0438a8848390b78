import { expect, test } from '@jest/globals';
import { written } from '../sentence/sentence.ts';
import { caveatsOf } from './caveats.ts';
import type { RunFinding } from './run-findings.ts';

const finding = (message: string, over: Partial<RunFinding> = {}): RunFinding => ({
  id: 'standard',
  from: 'check',
  severity: 'mind',
  limit: false,
  weight: 1,
  message,
  ...over,
});
const runs = (letter: string, ...found: RunFinding[]) =>
  [1, 2].map((number) => ({ label: `${letter}${number}`, found }));
const said = (...asked: Parameters<typeof caveatsOf>) => caveatsOf(...asked).map(({ text }) => written(text));

test('what was found alike on runs of both sides is said once, with all their labels', () => {
  const diesel = finding('It is a diesel.');
  expect(said([], runs('B', diesel), runs('A', diesel))).toEqual(['B1, B2, A1, A2: It is a diesel.']);
  const slip = finding('The tyres slip.', { id: 'slip', severity: 'stop' });
  expect(said([], runs('B', slip), runs('A', diesel))).toEqual(['B1, B2: The tyres slip.', 'A1, A2: It is a diesel.']);
});

test('a finding whose figures differ is said once with the worst of them, all runs named', () => {
  const slip = (percent: number) =>
    finding(`The tyres slip by ${percent} %.`, { id: 'tyre-slip', severity: 'stop', weight: percent });
  const side = (letter: string, ...percents: number[]) =>
    percents.map((percent, at) => ({ label: `${letter}${at + 1}`, found: [slip(percent)] }));
  expect(said([], side('B', 3.1, 5.2), side('A', 2.4))).toEqual([
    'B1, B2, A1: The tyres slip by 5.2 %. The figures are those of B2.',
  ]);
});

test('a limit that the baseline broke is told where it stands itself; notes are left out', () => {
  const broken = finding('Boost reaches 130 kPa.', { id: 'limit-boost', from: 'limit', severity: 'stop', limit: true });
  expect(said([], runs('B', finding('Fine.', { severity: 'note' })), runs('A', broken))).toEqual([]);
  expect(said([], runs('B', broken), runs('A', broken))).toEqual(['B1, B2: Boost reaches 130 kPa.']);
});
