import { expect, test } from '@jest/globals';
import { reportSourceOf } from '../testing/reported-example.ts';
import { keptUnits, unitSets } from '../units/told-units.ts';
import { composeReport } from './compose-report.ts';
import { untouched } from './drafted.ts';
import { writtenReport } from './written-report.ts';

const source = reportSourceOf();
const us = unitSets.find(({ name }) => name === 'US')!.units;
const contentIn = (units: typeof us, id: string) =>
  writtenReport(composeReport(source), untouched, source, units).blocks.find((block) => block.id === id)!.content;

test('a written report has the composed blocks in order, every figure in its reader’s units', () => {
  const report = composeReport(source);
  const { head, blocks } = writtenReport(report, untouched, source, keptUnits);
  expect(head).toEqual({ about: 'Tarrow Six · TS 66 · for A. Sorrel', when: '14 May 2026 · job 12' });
  expect(blocks.map(({ id }) => id)).toEqual(report.blocks.map(({ id }) => id));
  const [metric, american] = [keptUnits, us].map((units) => contentIn(units, 'figures'));
  if (metric?.is !== 'figures' || american?.is !== 'figures') throw new Error('no figures');
  expect(metric.figures[0]!.unit).toBe('kW');
  expect(american.figures[0]!.unit).toBe('hp');
  expect(Number(american.figures[0]!.figure) / Number(metric.figures[0]!.figure)).toBeCloseTo(1.341, 2);
  expect(metric.figures[0]!.note).toMatch(/^± \d\.\d, peak, mean of 3 runs, /);
});

test('lanes are there as wide as a page and as narrow as a phone; without a curve it says so', () => {
  const lanes = contentIn(keptUnits, 'lanes');
  if (lanes.is !== 'lanes') throw new Error('no lanes');
  expect(lanes.wide!.width).toBeGreaterThan(lanes.narrow!.width);
  const bare = { ...source, figures: { ...source.figures, runs: [], setups: [] } };
  const none = writtenReport(composeReport(source), untouched, bare, keptUnits).blocks.find(
    ({ id }) => id === 'lanes',
  )!;
  expect(none.content).toEqual({ is: 'lanes', says: 'No curve can be drawn of these runs.' });
});

test('it is plain: it can be kept as JSON and is the same again', () => {
  const written = writtenReport(composeReport(source), untouched, source, us);
  expect(JSON.parse(JSON.stringify(written))).toEqual(written);
});
