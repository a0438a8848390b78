import { describe, expect, test } from '@jest/globals';
import { written } from '../sentence/sentence.ts';
import { closingPoints, pointIds, type ClosingJob } from './open-points.ts';

const run = (label: string, setupId: number, hour: number) => ({
  label,
  setupId,
  kind: 'power',
  state: 'sealed',
  setAsideReason: null,
  endedAt: new Date(Date.UTC(2026, 4, 14, hour)).toISOString(),
});
/** Everything done: B was kept, ran last, and was handed over. */
const done: ClosingJob = {
  deliveredSetupId: 2,
  untested: 'cold start',
  setups: [
    { id: 1, letter: 'A', parentId: null, decision: null },
    { id: 2, letter: 'B', parentId: 1, decision: 'keep' },
  ],
  runs: [run('A1', 1, 9), run('B1', 2, 10)],
  tuneFiles: [{ setupId: 2 }],
  putBack: [{ text: 'Rev limiter', done: true }],
  inspections: [{ key: 'road-check', outcome: 'ok', note: '' }],
  reportVersions: [{ number: 3, createdAt: '2026-05-14T11:00:00Z' }],
};
const openOf = (over: Partial<ClosingJob>, failed: string[] = []) =>
  closingPoints({ ...done, ...over }, failed).flatMap((point) => (point.done ? [] : [written(point.says)]));

describe('what is open when a job is closed', () => {
  test('nothing, where all is done; every point is looked at once, in its order', () => {
    expect(openOf({})).toEqual([]);
    expect(closingPoints(done, []).map(({ id }) => id)).toEqual([...pointIds]);
    expect(closingPoints(done, []).map(({ says }) => written(says))).toContain('Report version 3 is kept.');
  });

  test.each<[string, Partial<ClosingJob>, string[]]>([
    [
      'nothing is delivered',
      { deliveredSetupId: null, tuneFiles: [] },
      [
        'No setup is named as delivered.',
        'The last run is B1: ? was not verified after it.',
        'No tune file is stored with what is delivered.',
      ],
    ],
    [
      'another setup ran last',
      { runs: [run('B1', 2, 9), run('A4', 1, 10)] },
      ['The last run is A4: B was not verified after it.'],
    ],
    ['the file is another’s', { tuneFiles: [{ setupId: 1 }] }, ['No tune file is stored with what is delivered.']],
    ['a run after the report', { runs: [...done.runs, run('B2', 2, 12)] }, ['No report was kept since the last run.']],
    ['no road check', { inspections: [] }, ['The road check is not ticked.']],
    [
      'a road check that failed',
      { inspections: [{ key: 'road-check', outcome: 'fail', note: 'pulls left' }] },
      ['The road check failed: pulls left.'],
    ],
    [
      'something still off',
      { putBack: [{ text: 'Probes taken out', done: false }] },
      ['Not ticked as put back: Probes taken out.'],
    ],
    [
      'nothing decided',
      { setups: [done.setups[0]!, { ...done.setups[1]!, decision: null }] },
      ['Nothing is decided on B.'],
    ],
    ['nothing untested', { untested: '' }, ['Nothing is written of what was not tested.']],
  ])('%s', (_, over, sentences) => {
    expect(openOf(over)).toEqual(sentences);
  });

  test('what failed in the inspection stays to be read', () => {
    expect(openOf({}, ['Belts whole and tight'])).toEqual(['Failed in the inspection: Belts whole and tight.']);
  });
});
