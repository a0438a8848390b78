import { expect, test } from '@jest/globals';
import { reportSourceOf } from '../testing/reported-example.ts';
import { keptUnits } from '../units/told-units.ts';
import { changedSince } from './changed-since.ts';
import { composeReport } from './compose-report.ts';
import { untouched } from './drafted.ts';
import { restsOn } from './make-report.ts';
import type { ReportSource } from './reported-job.ts';
import { writtenReport } from './written-report.ts';

const madeOf = (source: ReportSource) => ({
  written: writtenReport(composeReport(source), untouched, source, keptUnits),
  restsOn: restsOn(source),
});
/** As a store gives it back: fields in another order. */
const backwards = (_: string, value: unknown): unknown =>
  value !== null && typeof value === 'object' && !Array.isArray(value)
    ? Object.fromEntries(Object.entries(value).reverse())
    : value;
const kept = JSON.parse(JSON.stringify(madeOf(reportSourceOf()), backwards)) as ReturnType<typeof madeOf>;

test('of the same job nothing has changed', () => {
  expect(changedSince(kept, madeOf(reportSourceOf()))).toEqual({ blocks: [], runs: [], spread: false });
});

test('a run less is named, and every block that says something else for it', () => {
  const fewer = reportSourceOf({}, ({ id }) => id !== 6);
  const { blocks, runs } = changedSince(kept, madeOf(fewer));
  expect(runs).toEqual([{ side: 'delivered', then: ['B1', 'B2', 'B3'], now: ['B1', 'B2'] }]);
  expect(blocks).toEqual(
    expect.arrayContaining(['the answer', 'the large figures', 'the curves', 'How the figures were made']),
  );
  expect(blocks).not.toContain('Not tested');
});

test('what the shop has learned since is told: intervals are others for it', () => {
  const { restsOn: now, written } = madeOf(reportSourceOf());
  expect(
    changedSince(kept, { written, restsOn: { ...now, spread: { ...now.spread, df: now.spread.df + 4 } } }).spread,
  ).toBe(true);
});

test('words alone change their own block; one that is gone is named', () => {
  expect(changedSince(kept, madeOf(reportSourceOf({ untested: 'Cold start' }))).blocks).toEqual(['Not tested']);
  expect(changedSince(kept, madeOf(reportSourceOf({ untested: '' }))).blocks).toEqual(['Not tested']);
});
