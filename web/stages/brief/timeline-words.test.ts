import { keptUnits } from '../../../core/units/told-units.ts';
import { ownUnits } from '../../units/own-units.ts';
import { describe, expect, test } from '@jest/globals';
import type { Change } from '../../../contract/job/job-file.ts';
import type { Job, Run } from '../../../contract/job/records.ts';
import { timelineOf } from './timeline-words.ts';

const at = (minute: number) => new Date(Date.UTC(2026, 4, 4, 9, minute)).toISOString();
const run = (id: number, label: string, over: Partial<Run> = {}) =>
  ({ id, label, state: 'sealed', kind: 'power', startedAt: at(id), ...over }) as Run;
const job = {
  setups: [
    { id: 1, letter: 'A' },
    { id: 2, letter: 'B' },
  ],
  runs: [run(1, 'A1'), run(2, 'A2'), run(3, 'A3')],
  notes: [],
  bands: [{ id: 7, name: 'street' }],
  deliveredSetupId: null,
} as unknown as Job;
let next = 0;
const change = (subject: string, rowId: number, before: object | null, after: object, minute = 30) =>
  ({ id: ++next, act: next, at: at(minute), subject, rowId, before, after }) as Change;
const told = (changes: Change[], over: Partial<Job> = {}) =>
  timelineOf({ ...job, ...over }, changes, ownUnits(keptUnits)).map(({ text }) => text);

describe('what a job’s timeline says', () => {
  test('runs of one setup that follow one another are told in one line, in their order', () => {
    expect(told([])).toEqual(['A1, A2, A3 recorded']);
  });

  test('a change between them parts the line', () => {
    const between = change('band', 7, null, { name: 'street' }, 2.5);
    expect(told([between])).toEqual(['A3 recorded', 'Band street', 'A1, A2 recorded']);
  });

  test('a conditioning run and one going on are called what they are', () => {
    const runs = [run(1, 'A1', { kind: 'conditioning' }), run(2, 'A2', { state: 'recording' })];
    expect(told([], { runs })).toEqual(['A2 is being recorded', 'A1 conditioning']);
  });

  test.each<[string, Change, string]>([
    ['a setup', change('setup', 2, null, { position: 1, change: 'ignition +1°' }), 'Setup B: ignition +1°'],
    [
      'its decision',
      change('setup', 2, { decision: null }, { decision: 'keep', decisionWhy: 'gains' }),
      'B: keep, gains',
    ],
    ['what is taken away', change('band', 7, { removedAt: null }, { removedAt: at(9) }), 'Band street taken away'],
    ['and brought back', change('band', 7, { removedAt: at(9) }, { removedAt: null }), 'Band street brought back'],
    ['a run set aside', change('run', 1, { setAsideReason: null }, { setAsideReason: 'hop' }), 'A1 set aside: hop'],
    ['and counted again', change('run', 1, { setAsideReason: 'hop' }, { setAsideReason: null }), 'A1 counts again'],
    ['a frozen baseline', change('baseline', 3, null, { version: 2, why: 'cold' }), 'Baseline frozen, version 2: cold'],
    ['a borrowed curve', change('borrowed_curve', 4, null, { name: 'sheet' }), 'Borrowed curve sheet'],
    ['a pause', change('job', 1, { state: 'open' }, { state: 'paused', pausedWhy: 'parts' }), 'Paused: parts'],
    ['reopening', change('job', 1, { state: 'closed' }, { state: 'open' }), 'Reopened'],
    [
      'a closed job',
      change('job', 1, { state: 'open' }, { state: 'closed', deliveredSetupId: 2 }),
      'Job closed, delivered with B',
    ],
    ['a field', change('job', 1, { target: '' }, { target: '100 kW' }), 'Target: 100 kW'],
  ])('%s', (_, event, words) => {
    expect(told([event])[0]).toBe(words);
  });

  test('what says nothing of its own is left out', () => {
    expect(told([change('inspection', 1, null, { key: 'belts', outcome: 'ok' })], { runs: [] })).toEqual([]);
  });
});
