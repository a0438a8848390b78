import { expect, test } from '@jest/globals';
import { reportSourceOf } from '../testing/reported-example.ts';
import { keptUnits } from '../units/told-units.ts';
import { changedSince } from './changed-since.ts';
import { composeReport } from './compose-report.ts';
import { untouched } from './drafted.ts';
import { restsOn } from './make-report.ts';
import type { ReportSource } from './reported-job.ts';
import { writtenReport } from './written-report.ts';

const madeOf = (source: ReportSource) => ({ written: writtenReport(composeReport(source), untouched, source, keptUnits), restsOn: restsOn(source) }); // prettier-ignore
const kept = JSON.parse(JSON.stringify(madeOf(reportSourceOf()))) as ReturnType<typeof madeOf>;

test('of the same job nothing has changed', () => {
  expect(changedSince(kept, madeOf(reportSourceOf()))).toEqual({ blocks: [], runs: [] });
});

test('a run less is named, and every block that says something else for it', () => {
  const fewer = reportSourceOf({}, ({ id }) => id !== 6);
  const { blocks, runs } = changedSince(kept, madeOf(fewer));
  expect(runs).toEqual([{ side: 'delivered', then: ['B1', 'B2', 'B3'], now: ['B1', 'B2'] }]);
  expect(blocks).toEqual(expect.arrayContaining(['the answer', 'the large figures', 'the curves', 'How the figures were made'])); // prettier-ignore
  expect(blocks).not.toContain('Not tested');
});

test('words alone change their own block; one that is gone is named', () => {
  expect(changedSince(kept, madeOf(reportSourceOf({ untested: 'Cold start' }))).blocks).toEqual(['Not tested']);
  expect(changedSince(kept, madeOf(reportSourceOf({ untested: '' }))).blocks).toEqual(['Not tested']);
});
